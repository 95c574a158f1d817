package hushrise.core.loudness;

import hushrise.core.project.Project;
import java.util.Optional;

/** Films that were measured before, wherever they are kept. Safe for any number of threads. */
public interface MeasuredFilms {

  /** Keeps nothing. */
  MeasuredFilms NONE =
      new MeasuredFilms() {
        @Override
        public Optional<FilmLoudness> find(Project project) {
          return Optional.empty();
        }

        @Override
        public void measuring(Project project) {
          // nothing of it will be kept
        }

        @Override
        public void keep(FilmLoudness film) {
          // so it is measured anew each time
        }
      };

  /**
   * What a film was measured to be before; empty when it was not, or a file of it is gone. Whatever
   * is kept from now on is of the files as they are now.
   */
  Optional<FilmLoudness> find(Project project);

  /** Is told of each film before it is measured: files that come with it count as they are now. */
  void measuring(Project project);

  /** Keeps what a film was measured to be, unless one of its files has changed meanwhile. */
  void keep(FilmLoudness film);
}

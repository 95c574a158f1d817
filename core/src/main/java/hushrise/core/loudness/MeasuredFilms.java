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
        public void keep(FilmLoudness film) {
          // so it is measured anew each time
        }
      };

  /** What a film was measured to be before; empty when it was not, or a file of it is gone. */
  Optional<FilmLoudness> find(Project project);

  /** Keeps what a film was measured to be. */
  void keep(FilmLoudness film);
}

package hushrise.app.play;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.ride.Hands;
import hushrise.core.sound.SoundLibrary;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.Predicate;

/**
 * Makes mixers off the window's thread and keeps the last one. Each wish begins another generation;
 * a mixer that arrives after another wish, or after a stop, is let go.
 */
final class Mixers {

  /** How much is brought near before playing begins. */
  private static final int NEAR_FRAMES = 1 << 15;

  /** A mixer and what it renders. */
  private record Made(Project project, Mixer mixer) {}

  private final SoundLibrary library;
  private final Jobs jobs;
  private final Hands hands;
  private final AtomicLong generation = new AtomicLong();
  private final Object replacing = new Object();
  private Optional<Made> made = Optional.empty();
  private Optional<String> alone = Optional.empty();

  /**
   * @param hands what is on the faders
   */
  Mixers(SoundLibrary library, Jobs jobs, Hands hands) {
    this.library = library;
    this.jobs = jobs;
    this.hands = hands;
  }

  /** Begins another generation; gives its number. */
  long next() {
    return generation.incrementAndGet();
  }

  /** Lets one track be heard alone; empty: all again. */
  void setAlone(Optional<String> trackId) {
    alone = trackId;
  }

  /** Makes the next mixer anew, whatever it renders. */
  void forget() {
    made = Optional.empty();
  }

  /** The mixer that was kept, if it renders a project; another generation begins with it. */
  Optional<Mixer> kept(Project project) {
    Optional<Mixer> kept = made.filter(m -> m.project().equals(project)).map(Made::mixer);
    if (kept.isPresent()) {
      next();
    }
    return kept;
  }

  private Predicate<Track> heard(Project project) {
    return alone
        .<Predicate<Track>>map(id -> t -> t.id().equals(id))
        .orElseGet(project::heardTracks);
  }

  /**
   * Makes a mixer of the film, keeps it and goes on with it.
   *
   * @param from where it will begin
   * @param failed when it cannot be made
   */
  void make(Project project, long from, Consumer<Mixer> then, Runnable failed) {
    make(
        project,
        library,
        heard(project),
        from,
        mixer -> {
          made = Optional.of(new Made(project, mixer));
          then.accept(mixer);
        },
        failed);
  }

  /** Makes a mixer of tracks of a project for once, and goes on with it. */
  void makeOnce(
      Project project, Predicate<Track> heard, long from, Consumer<Mixer> then, Runnable failed) {
    make(project, library, heard, from, then, failed);
  }

  /** As {@link #makeOnce}, of sounds of its own. */
  void make(
      Project project,
      SoundLibrary sounds,
      Predicate<Track> heard,
      long from,
      Consumer<Mixer> then,
      Runnable failed) {
    long number = next();
    jobs.runSaying(
        text("play.reading"),
        "",
        () -> {
          Mixer mixer = Mixer.of(project, sounds, heard, hands);
          mixer.touch(from, NEAR_FRAMES);
          return mixer;
        },
        mixer -> {
          if (number == generation.get()) {
            then.accept(mixer);
          }
        },
        () -> {
          if (number == generation.get()) {
            failed.run();
          }
        });
  }

  /**
   * Makes a mixer that takes another one's place while that plays, and keeps it.
   *
   * @param replace puts it there; not on the window's thread, and never after another wish
   */
  void replace(Project project, Consumer<Mixer> replace) {
    long number = next();
    Predicate<Track> heard = heard(project);
    jobs.run(
        () -> {
          Mixer mixer = Mixer.of(project, library, heard, hands);
          synchronized (replacing) {
            if (number == generation.get()) {
              replace.accept(mixer);
            }
          }
          return mixer;
        },
        mixer -> {
          if (number == generation.get()) {
            made = Optional.of(new Made(project, mixer));
          }
        });
  }
}

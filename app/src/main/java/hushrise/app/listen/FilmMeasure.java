package hushrise.app.listen;

import hushrise.app.job.Calm;
import hushrise.app.job.Jobs;
import hushrise.app.session.Session;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.MeasuredFilms;
import hushrise.core.project.Project;
import hushrise.core.sound.ForgivingLibrary;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinWorkerThread;
import java.util.concurrent.atomic.AtomicReference;
import javafx.animation.PauseTransition;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.util.Duration;

/**
 * Keeps the loudness of the whole film current: after each edit it measures what the edit has
 * changed, on threads of its own that leave one core to the window and the sound, and stand back
 * while something is moved; when another edit comes before it is done, it begins with that. Once it
 * is current, it finds out in the background what each track gives, so that turning one later takes
 * no measuring; nothing waits for that, and the next edit ends it.
 */
public final class FilmMeasure {

  /** So many seconds are looked at in one go in the background. */
  private static final int ASIDE_SECONDS = 60;

  private final Session session;
  private final ForgivingLibrary sounds;
  private final MeasuredFilms films;
  private final Jobs jobs;
  private final Calm calm;
  private final ForkJoinPool workers =
      new ForkJoinPool(
          Math.max(1, Runtime.getRuntime().availableProcessors() - 1),
          FilmMeasure::inBackground,
          null,
          false);
  private final ReadOnlyObjectWrapper<Optional<FilmLoudness>> now =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final ReadOnlyBooleanWrapper measuring = new ReadOnlyBooleanWrapper();
  private final AtomicReference<Project> latest = new AtomicReference<>();
  private Optional<Project> failed = Optional.empty();
  private Optional<FilmLoudness> known = Optional.empty();

  /** What was kept last. */
  private Optional<Project> kept = Optional.empty();

  private final PauseTransition quiet = new PauseTransition(Duration.seconds(2));
  private int generation;
  private boolean busy;

  /** Whether silence has stood for a file since all was forgotten. */
  private volatile boolean flawed;

  private boolean settling;
  private boolean closed;

  public FilmMeasure(
      Session session, SoundLibrary library, MeasuredFilms films, Jobs jobs, Calm calm) {
    this.session = session;
    this.films = films;
    this.sounds = new ForgivingLibrary(library, sentence -> flawed = true);
    this.jobs = jobs;
    this.calm = calm;
    quiet.setOnFinished(e -> rest());
    session.presentProperty().addListener((p, was, is) -> changed());
  }

  private static ForkJoinWorkerThread inBackground(ForkJoinPool pool) {
    ForkJoinWorkerThread worker = ForkJoinPool.defaultForkJoinWorkerThreadFactory.newThread(pool);
    worker.setPriority(Thread.MIN_PRIORITY);
    return worker;
  }

  /** What was measured last; empty while nothing has been. Changes on the window's thread. */
  public ReadOnlyObjectProperty<Optional<FilmLoudness>> nowProperty() {
    return now.getReadOnlyProperty();
  }

  /** Whether what was measured is older than the project. */
  public ReadOnlyBooleanProperty measuringProperty() {
    return measuring.getReadOnlyProperty();
  }

  /** Forgets everything, as the project is another one or a file has changed. */
  public void forget() {
    generation++;
    now.set(Optional.empty());
    known = Optional.empty();
    failed = Optional.empty();
    kept = Optional.empty();
    flawed = false;
    changed();
  }

  private void changed() {
    Project project = session.present();
    latest.set(project);
    quiet.stop();
    if (closed || project.lengthFrames() == 0) {
      now.set(Optional.empty());
      known = Optional.empty();
      return;
    }
    measuring.set(now.get().filter(m -> m.project().equals(project)).isEmpty());
    if (measuring.get()) {
      measure();
    }
  }

  private void measure() {
    if (busy) {
      return;
    }
    busy = true;
    Project project = session.present();
    Optional<FilmLoudness> before = known;
    int asked = generation;
    jobs.run(
        workers,
        () -> measured(project, before),
        measured -> {
          busy = false;
          if (asked == generation && project.equals(latest.get())) {
            known = Optional.of(measured);
            now.set(known);
          }
          again();
        },
        () -> {
          busy = false;
          failed = Optional.of(project);
          again();
        });
  }

  private FilmLoudness measured(Project project, Optional<FilmLoudness> before) {
    if (before.isPresent()) {
      films.measuring(project);
      return before.get().following(project, sounds, whileLatest(project));
    }
    return films
        .find(project)
        .orElseGet(() -> FilmLoudness.of(project, sounds, whileLatest(project)));
  }

  private Progress whileLatest(Project project) {
    return fraction -> {
      calm.await();
      if (!project.equals(latest.get())) {
        throw new CancellationException();
      }
    };
  }

  /** Keeps what was measured if all of it could be read, and goes on in the background. */
  private void rest() {
    Optional<FilmLoudness> measured = known.filter(k -> !isKept(k));
    boolean whole = !flawed && session.present().shelf().stream().noneMatch(sounds::isSilent);
    if (closed || measured.isEmpty() || !whole) {
      settle();
      return;
    }
    kept = measured.map(FilmLoudness::project);
    jobs.runAside(
        workers,
        () -> {
          films.keep(measured.get());
          return measured;
        },
        done -> settle(),
        this::settle);
  }

  /** Finds out some more of what the tracks give. */
  private void settle() {
    if (busy || settling || closed || known.filter(k -> !k.isSettled()).isEmpty()) {
      return;
    }
    settling = true;
    FilmLoudness measured = known.get();
    jobs.runAside(
        workers,
        () -> measured.settled(ASIDE_SECONDS, sounds, whileLatest(measured.project())),
        settled -> {
          settling = false;
          boolean current = known.filter(k -> k == measured).isPresent();
          known = current ? Optional.of(settled) : known;
          if (current && settled.isSettled()) {
            now.set(known);
          } else if (current) {
            settle();
          } else {
            again();
          }
        },
        () -> {
          settling = false;
          if (!measured.project().equals(latest.get())) {
            again();
          }
        });
  }

  /** Goes on with what has changed meanwhile; what failed would only fail again. */
  private void again() {
    if (busy) {
      return;
    }
    Project present = session.present();
    boolean current = now.get().filter(m -> m.project().equals(present)).isPresent();
    boolean hopeless = failed.filter(present::equals).isPresent();
    measuring.set(!current && !hopeless && present.lengthFrames() > 0);
    if (measuring.get() && !closed) {
      measure();
    } else if (current && !closed && known.filter(this::isUnfinished).isPresent()) {
      quiet.playFromStart();
    }
  }

  private boolean isUnfinished(FilmLoudness film) {
    return !film.isSettled() || !isKept(film);
  }

  private boolean isKept(FilmLoudness film) {
    return kept.filter(film.project()::equals).isPresent();
  }

  /** Ends its threads. */
  public void close() {
    closed = true;
    quiet.stop();
    workers.shutdownNow();
  }
}

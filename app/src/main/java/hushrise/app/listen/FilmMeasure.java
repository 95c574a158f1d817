package hushrise.app.listen;

import hushrise.app.job.Calm;
import hushrise.app.job.Jobs;
import hushrise.app.session.Session;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.project.Project;
import hushrise.core.sound.ForgivingLibrary;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicReference;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/**
 * Keeps the loudness of the whole film current: after each edit it measures what the edit has
 * changed, on threads of its own that leave one core to the window and the sound, and stand back
 * while something is moved; when another edit comes before it is done, it begins with that.
 */
public final class FilmMeasure {

  private final Session session;
  private final SoundLibrary sounds;
  private final Jobs jobs;
  private final Calm calm;
  private final ForkJoinPool workers =
      new ForkJoinPool(Math.max(1, Runtime.getRuntime().availableProcessors() - 1));
  private final ReadOnlyObjectWrapper<Optional<FilmLoudness>> now =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final ReadOnlyBooleanWrapper measuring = new ReadOnlyBooleanWrapper();
  private final AtomicReference<Project> latest = new AtomicReference<>();
  private Optional<Project> failed = Optional.empty();
  private boolean busy;
  private boolean closed;

  public FilmMeasure(Session session, SoundLibrary library, Jobs jobs, Calm calm) {
    this.session = session;
    this.sounds = new ForgivingLibrary(library, sentence -> {});
    this.jobs = jobs;
    this.calm = calm;
    session.presentProperty().addListener((p, was, is) -> changed());
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
    now.set(Optional.empty());
    failed = Optional.empty();
    changed();
  }

  private void changed() {
    Project project = session.present();
    latest.set(project);
    if (closed || project.lengthFrames() == 0) {
      now.set(Optional.empty());
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
    Optional<FilmLoudness> known = now.get();
    Progress whileLatest =
        fraction -> {
          calm.await();
          if (!project.equals(latest.get())) {
            throw new CancellationException();
          }
        };
    jobs.run(
        workers,
        () ->
            known.isPresent()
                ? known.get().following(project, sounds, whileLatest)
                : FilmLoudness.of(project, sounds, whileLatest),
        measured -> {
          busy = false;
          if (project.equals(latest.get())) {
            now.set(Optional.of(measured));
          }
          again();
        },
        () -> {
          busy = false;
          failed = Optional.of(project);
          again();
        });
  }

  /** Goes on with what has changed meanwhile; what failed would only fail again. */
  private void again() {
    Project present = session.present();
    boolean current = now.get().filter(m -> m.project().equals(present)).isPresent();
    boolean hopeless = failed.filter(present::equals).isPresent();
    measuring.set(!current && !hopeless && present.lengthFrames() > 0);
    if (measuring.get() && !closed) {
      measure();
    }
  }

  /** Ends its threads. */
  public void close() {
    closed = true;
    workers.shutdownNow();
  }
}

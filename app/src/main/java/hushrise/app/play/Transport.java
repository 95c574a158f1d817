package hushrise.app.play;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.mix.Mixer;
import hushrise.core.play.Player;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.ForgivingLibrary;
import hushrise.core.sound.SoundLibrary;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Predicate;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;

/**
 * Plays what the session shows from its playhead. While playing, the playhead follows the sound,
 * and an edit is heard from the next block on.
 *
 * <p>Mixers are made off the window's thread. Each wish to play has a number; a mixer that arrives
 * after another wish, or after a stop, is let go.
 */
public final class Transport implements AutoCloseable {

  /** A mixer and what it renders. */
  private record Made(Project project, Mixer mixer) {}

  private final Session session;
  private final SoundLibrary library;
  private final Jobs jobs;
  private final Player player;
  private final AtomicLong wish = new AtomicLong();
  private final Object replacing = new Object();
  private final ReadOnlyBooleanWrapper playing = new ReadOnlyBooleanWrapper();
  private final ReadOnlyBooleanWrapper auditioning = new ReadOnlyBooleanWrapper();
  private final ReadOnlyLongWrapper auditionFrame = new ReadOnlyLongWrapper();
  private Optional<Made> made = Optional.empty();
  private boolean begun;
  private boolean following;
  private final AnimationTimer timer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          follow();
        }
      };

  public Transport(
      Session session, SoundLibrary library, Jobs jobs, Messages messages, AudioOutput output) {
    this.session = session;
    this.library =
        new ForgivingLibrary(library, s -> Platform.runLater(() -> messages.complain(s)));
    this.jobs = jobs;
    this.player =
        new Player(
            output,
            e -> Platform.runLater(() -> messages.complain(text("play.failed", e.getMessage()))));
    session.shownProperty().addListener((p, was, now) -> takeOver(now));
    session
        .playheadProperty()
        .addListener(
            (p, was, now) -> {
              if (playing.get() && !following) {
                start();
              }
            });
  }

  public ReadOnlyBooleanProperty playingProperty() {
    return playing.getReadOnlyProperty();
  }

  public Player player() {
    return player;
  }

  public void toggle() {
    if (playing.get() || auditioning.get()) {
      stop();
    } else {
      if (session.playhead() >= session.shown().lengthFrames()) {
        session.seek(0);
      }
      playing.set(true);
      start();
    }
  }

  private void start() {
    Project project = session.shown();
    long from = session.playhead();
    if (made.filter(m -> m.project().equals(project)).isPresent()) {
      wish.incrementAndGet();
      begin(made.get().mixer(), from, project.lengthFrames());
      return;
    }
    halt();
    make(
        project,
        project.heardTracks(),
        mixer -> {
          made = Optional.of(new Made(project, mixer));
          begin(mixer, session.playhead(), project.lengthFrames());
        });
  }

  private void begin(Mixer mixer, long from, long to) {
    player.play(mixer, from, to);
    begun = true;
    timer.start();
  }

  /** Makes a mixer and goes on with it, unless something else is wished for by then. */
  private void make(
      Project project, Predicate<Track> heard, java.util.function.Consumer<Mixer> then) {
    long number = wish.incrementAndGet();
    jobs.run(
        () -> Mixer.of(project, library, heard),
        mixer -> {
          if (number == wish.get()) {
            then.accept(mixer);
          }
        },
        () -> {
          if (number == wish.get()) {
            stop();
          }
        });
  }

  /**
   * Plays a stretch of another or of this project without moving the playhead, once.
   *
   * @param heard which tracks to play
   */
  public void audition(Project project, Predicate<Track> heard, long from, long to) {
    stop();
    auditioning.set(true);
    make(project, heard, mixer -> begin(mixer, from, to));
  }

  /** Whether something plays that is not the film from its playhead. */
  public ReadOnlyBooleanProperty auditioningProperty() {
    return auditioning.getReadOnlyProperty();
  }

  /** Where the audition is, on the timeline of what is auditioned. */
  public ReadOnlyLongProperty auditionFrameProperty() {
    return auditionFrame.getReadOnlyProperty();
  }

  /** Lets an edit be heard; of several made in a row the last. */
  private void takeOver(Project project) {
    made = Optional.empty();
    if (!playing.get()) {
      return;
    }
    if (!begun) {
      start();
      return;
    }
    long number = wish.incrementAndGet();
    jobs.run(
        () -> {
          Mixer mixer = Mixer.of(project, library);
          synchronized (replacing) {
            if (number == wish.get()) {
              player.replace(mixer, project.lengthFrames());
            }
          }
          return mixer;
        },
        mixer -> {
          if (number == wish.get()) {
            made = Optional.of(new Made(project, mixer));
          }
        });
  }

  public void stop() {
    wish.incrementAndGet();
    auditioning.set(false);
    playing.set(false);
    halt();
  }

  private void halt() {
    begun = false;
    timer.stop();
    player.stop();
  }

  private void follow() {
    boolean over = !player.isPlaying();
    if (auditioning.get()) {
      auditionFrame.set(player.positionFrame());
    } else {
      following = true;
      session.seek(player.positionFrame());
      following = false;
    }
    if (over) {
      stop();
    }
  }

  @Override
  public void close() {
    stop();
    player.close();
  }
}

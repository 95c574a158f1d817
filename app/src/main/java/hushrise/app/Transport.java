package hushrise.app;

import hushrise.core.mix.Mixer;
import hushrise.core.play.Player;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.SoundLibrary;
import java.util.function.Predicate;
import javafx.animation.AnimationTimer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;

/**
 * Plays the session's project from its playhead. While playing, the playhead follows the sound, and
 * an edit is heard from the next block on.
 */
public final class Transport implements AutoCloseable {

  private final Session session;
  private final SoundLibrary library;
  private final Background background;
  private final Player player;
  private final ReadOnlyBooleanWrapper playing = new ReadOnlyBooleanWrapper();
  private final ReadOnlyBooleanWrapper auditioning = new ReadOnlyBooleanWrapper();
  private final ReadOnlyLongWrapper auditionFrame = new ReadOnlyLongWrapper();
  private boolean following;
  private final AnimationTimer auditionTimer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          auditionFrame.set(player.positionFrame());
          if (!player.isPlaying()) {
            Transport.this.stop();
          }
        }
      };
  private final AnimationTimer timer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          follow();
        }
      };

  public Transport(
      Session session, SoundLibrary library, Background background, AudioOutput output) {
    this.session = session;
    this.library = library;
    this.background = background;
    this.player = new Player(output);
    session.projectProperty().addListener((p, was, now) -> takeOver(now));
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
      if (session.playhead() >= session.project().lengthFrames()) {
        session.seek(0);
      }
      playing.set(true);
      start();
    }
  }

  private void start() {
    timer.stop();
    player.stop();
    Project project = session.project();
    long from = session.playhead();
    background.run(
        () -> Mixer.of(project, library),
        mixer -> {
          if (playing.get()) {
            player.play(mixer, from, project.lengthFrames());
            timer.start();
          }
        },
        this::stop);
  }

  /**
   * Plays a stretch of another or of this project without moving the playhead, once.
   *
   * @param heard which tracks to play
   */
  public void audition(Project project, Predicate<Track> heard, long from, long to) {
    stop();
    auditioning.set(true);
    background.run(
        () -> Mixer.of(project, library, heard),
        mixer -> {
          if (auditioning.get()) {
            player.play(mixer, from, to);
            auditionTimer.start();
          }
        },
        this::stop);
  }

  /** Whether something plays that is not the film from its playhead. */
  public ReadOnlyBooleanProperty auditioningProperty() {
    return auditioning.getReadOnlyProperty();
  }

  /** Where the audition is, on the timeline of what is auditioned. */
  public ReadOnlyLongProperty auditionFrameProperty() {
    return auditionFrame.getReadOnlyProperty();
  }

  private void takeOver(Project project) {
    if (playing.get()) {
      background.run(() -> Mixer.of(project, library), player::replace);
    }
  }

  public void stop() {
    if (auditioning.get()) {
      auditioning.set(false);
      auditionTimer.stop();
      player.stop();
    }
    if (playing.get()) {
      playing.set(false);
      timer.stop();
      player.stop();
    }
  }

  private void follow() {
    following = true;
    session.seek(player.positionFrame());
    following = false;
    if (!player.isPlaying()) {
      stop();
    }
  }

  @Override
  public void close() {
    stop();
    player.close();
  }
}

package hushrise.app.play;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.Decibels;
import hushrise.core.Problem;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Devices;
import hushrise.core.sound.Surface;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.util.Duration;

/**
 * Lets the faders of a control surface move those of tracks. Which moves which is learned by moving
 * one. A surface does not tell when its fader is let go: one that rests for a while has been.
 */
public final class SurfaceRides implements AutoCloseable {

  private static final Duration RESTS = Duration.millis(700);
  private static final double CURVE = 1.5;

  private final Session session;
  private final Riders riders;
  private final Messages messages;
  private final Map<Integer, String> tracks = new HashMap<>();
  private final Map<String, PauseTransition> resting = new HashMap<>();
  private Optional<Surface> surface = Optional.empty();
  private Optional<String> learning = Optional.empty();

  public SurfaceRides(Session session, Riders riders, Messages messages) {
    this.session = session;
    this.riders = riders;
    this.messages = messages;
  }

  /** Goes on with a surface; the one before it is let go. */
  public void open(Devices devices, String name) {
    close();
    try {
      surface =
          Optional.of(
              devices.surface(
                  name, (fader, position) -> Platform.runLater(() -> moved(fader, position))));
      messages.say(text("surface.open", name));
    } catch (Problem e) {
      messages.complain(e.getMessage());
    }
  }

  /** The surface that is open. */
  public Optional<Surface> surface() {
    return surface;
  }

  /** Waits for a fader to be moved, which is a track's from then on. */
  public void learn(Track track) {
    learning = Optional.of(track.id());
    messages.say(text("surface.learn", track.name()));
  }

  private void moved(int fader, double position) {
    if (learning.isPresent()) {
      tracks.put(fader, learning.get());
      session
          .present()
          .track(learning.get())
          .ifPresent(t -> messages.say(text("surface.learned", t.name())));
      learning = Optional.empty();
      return;
    }
    Optional<String> track =
        Optional.ofNullable(tracks.get(fader))
            .filter(id -> session.present().track(id).isPresent());
    if (track.isEmpty()) {
      messages.say(text("surface.unknown"));
      return;
    }
    move(track.get(), dbAt(position));
  }

  /** The same scale as the faders on the screen have. */
  static double dbAt(double position) {
    double db =
        Decibels.OFF_DB
            + (Keyframe.MAX_DB - Decibels.OFF_DB) * Math.pow(Math.clamp(position, 0, 1), 1 / CURVE);
    return Math.round(db * 10) / 10.0;
  }

  private void move(String trackId, double db) {
    if (riders.isRiding(trackId)) {
      riders.hold(trackId, db);
    } else {
      session.drag(text("edit.trackLevel"), p -> LevelEdits.setTrackLevel(p, trackId, db));
    }
    PauseTransition rest = resting.computeIfAbsent(trackId, id -> new PauseTransition(RESTS));
    rest.setOnFinished(e -> rested(trackId));
    rest.playFromStart();
  }

  private void rested(String trackId) {
    if (riders.isRiding(trackId)) {
      riders.letGo(trackId);
    } else {
      session.endDrag();
    }
  }

  @Override
  public void close() {
    surface.ifPresent(Surface::close);
    surface = Optional.empty();
  }
}

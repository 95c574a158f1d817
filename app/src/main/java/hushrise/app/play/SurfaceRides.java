package hushrise.app.play;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.Decibels;
import hushrise.core.Problem;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Devices;
import hushrise.core.sound.Surface;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.util.Duration;

/**
 * Lets the faders of a control surface move those of tracks, several at once. Which moves which is
 * learned by moving one; in another project it moves the track of that kind in the same place. A
 * surface does not tell when its fader is let go: one that rests for a while has been.
 */
public final class SurfaceRides implements AutoCloseable {

  private static final Duration RESTS = Duration.millis(700);
  private static final double CURVE = 1.5;
  private static final Pattern LEARNED = Pattern.compile("(\\d{1,6}) ([A-Z]+) (\\d{1,4})");

  /** Whose drag it is when a fader moves a track. */
  private record Hand(String trackId) {}

  /** Which of the tracks of a kind, counted from 0 downwards. */
  private record Place(TrackKind kind, int index) {

    private static Optional<Place> of(Project project, String trackId) {
      return project
          .track(trackId)
          .map(t -> new Place(t.kind(), project.tracksOf(t.kind()).toList().indexOf(t)));
    }

    private Optional<Track> in(Project project) {
      return project.tracksOf(kind).skip(index).findFirst();
    }
  }

  private final Session session;
  private final Riders riders;
  private final Messages messages;
  private final Map<Integer, String> tracks = new HashMap<>();
  private final Map<Integer, Place> places = new TreeMap<>();
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
    Project project = session.present();
    Optional<Track> learned = learning.flatMap(project::track);
    learning = Optional.empty();
    if (learned.isPresent()) {
      tracks.put(fader, learned.get().id());
      Place.of(project, learned.get().id()).ifPresent(place -> places.put(fader, place));
      messages.say(text("surface.learned", learned.get().name()));
      return;
    }
    trackOf(fader)
        .ifPresentOrElse(
            track -> move(track.id(), dbAt(position)), () -> messages.say(text("surface.unknown")));
  }

  /** The track that a fader was learned for, or in its absence the one in the same place. */
  private Optional<Track> trackOf(int fader) {
    Project project = session.present();
    return Optional.ofNullable(tracks.get(fader))
        .flatMap(project::track)
        .or(() -> Optional.ofNullable(places.get(fader)).flatMap(place -> place.in(project)));
  }

  /**
   * What the faders have learned, as text: the fader, the kind of track, and which of that kind.
   */
  public String learned() {
    return places.entrySet().stream()
        .map(e -> e.getKey() + " " + e.getValue().kind() + " " + e.getValue().index())
        .collect(Collectors.joining(", "));
  }

  /**
   * Lets the faders know what they had learned.
   *
   * @param words as {@link #learned} tells it
   * @throws IllegalArgumentException when it is anything else
   */
  public void recall(String words) {
    Map<Integer, Place> recalled = new TreeMap<>();
    for (String one : words.split(", ", -1)) {
      Matcher matcher = LEARNED.matcher(one);
      if (!matcher.matches()) {
        throw new IllegalArgumentException(one + " tells of no fader");
      }
      recalled.put(
          Integer.valueOf(matcher.group(1)),
          new Place(TrackKind.valueOf(matcher.group(2)), Integer.parseInt(matcher.group(3))));
    }
    places.putAll(recalled);
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
      session.drag(
          new Hand(trackId),
          text("edit.trackLevel"),
          p -> LevelEdits.setTrackLevel(p, trackId, db));
    }
    PauseTransition rest = resting.computeIfAbsent(trackId, id -> new PauseTransition(RESTS));
    rest.setOnFinished(e -> rested(trackId));
    rest.playFromStart();
  }

  private void rested(String trackId) {
    if (riders.isRiding(trackId)) {
      riders.letGo(trackId);
    }
    session.endDrag(new Hand(trackId)); // which may have begun before the ride did
  }

  @Override
  public void close() {
    surface.ifPresent(Surface::close);
    surface = Optional.empty();
  }
}

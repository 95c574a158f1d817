package hushrise.app.play;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.play.TransportState.Auditioning;
import hushrise.app.play.TransportState.Playing;
import hushrise.app.play.TransportState.Recording;
import hushrise.app.play.TransportState.Riding;
import hushrise.app.play.TransportState.Stopped;
import hushrise.app.session.Session;
import hushrise.core.mix.Mixer;
import hushrise.core.play.CountIn;
import hushrise.core.play.Player;
import hushrise.core.play.Range;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.ForgivingLibrary;
import hushrise.core.sound.SoundLibrary;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/**
 * Plays what the session shows from its playhead. While playing, the playhead follows the sound,
 * and an edit is heard from the next block on. Every wish has a generation, so that what arrives
 * late never wins.
 */
public final class Transport implements AutoCloseable {

  /** How long a place that the playhead is dragged over sounds. */
  private static final double SCRUB_SECONDS = 0.09;

  private final Session session;
  private final ForgivingLibrary sounds;
  private final Mixers mixers;
  private final Loudspeaker loudspeaker;
  private final Player player;
  private final Riders riders;
  private final ReadOnlyObjectWrapper<TransportState> state =
      new ReadOnlyObjectWrapper<>(new Stopped(0));
  private final ReadOnlyBooleanWrapper playing = new ReadOnlyBooleanWrapper();
  private final ReadOnlyBooleanWrapper auditioning = new ReadOnlyBooleanWrapper();
  private final ReadOnlyLongWrapper auditionFrame = new ReadOnlyLongWrapper();

  /** What is heard of the film while a take is spoken. It is never an edit. */
  private Optional<UnaryOperator<Project>> underTake = Optional.empty();

  private Runnable afterCount = () -> {};
  private boolean counting;
  private boolean begun;
  private boolean following;
  private long returnFrame;
  private final AnimationTimer timer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          follow();
        }
      };

  /**
   * @param loudspeaker closed together with the transport
   */
  public Transport(
      Session session,
      SoundLibrary library,
      Jobs jobs,
      Messages messages,
      Loudspeaker loudspeaker) {
    this.session = session;
    this.loudspeaker = loudspeaker;
    player = loudspeaker.player();
    riders = new Riders(session, this::handsChanged);
    sounds = new ForgivingLibrary(library, s -> Platform.runLater(() -> messages.complain(s)));
    mixers = new Mixers(sounds, jobs, riders);
    session.shownProperty().addListener((p, was, now) -> takeOver());
    session.playheadProperty().addListener((p, was, now) -> playheadMoved());
    state.addListener(
        (p, was, now) -> {
          playing.set(now.part().isPresent());
          auditioning.set(now instanceof Auditioning);
        });
  }

  public ReadOnlyObjectProperty<TransportState> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** Whether the film sounds and the playhead goes along. */
  public ReadOnlyBooleanProperty playingProperty() {
    return playing.getReadOnlyProperty();
  }

  /** Whether something plays that is not the film from its playhead. */
  public ReadOnlyBooleanProperty auditioningProperty() {
    return auditioning.getReadOnlyProperty();
  }

  /** Where the audition is, on the timeline of what is auditioned. */
  public ReadOnlyLongProperty auditionFrameProperty() {
    return auditionFrame.getReadOnlyProperty();
  }

  /** Where it sounds, how loud and how fast. */
  public Loudspeaker loudspeaker() {
    return loudspeaker;
  }

  public Player player() {
    return player;
  }

  /** Who rides which track. */
  public Riders riders() {
    return riders;
  }

  /** Plays from the playhead, or stops what plays. */
  public void toggle() {
    if (!state.get().isStopped()) {
      stop();
      return;
    }
    if (session.playhead() >= session.shown().lengthFrames()) {
      session.seek(0);
    }
    int seconds = riders.countInSeconds();
    if (seconds > 0 && !riders.armed().isEmpty()) {
      state.set(new Auditioning(mixers.next()));
      count(
          seconds,
          () -> {
            counting = false;
            begin(Part.REST, session.playhead());
          });
    } else {
      begin(Part.REST, session.playhead());
    }
  }

  /** Plays a part of the film from its beginning. */
  public void play(Part part) {
    stop();
    Range range = part.in(session.shown());
    if (range.fromFrame() < range.toFrame()) {
      begin(part, range.fromFrame());
    }
  }

  private void begin(Part part, long from) {
    returnFrame = session.playhead();
    riders.begin(session.shown().sampleRate());
    if (riders.areRiding()) {
      mixers.forget();
    }
    state.set(stateOf(part));
    start(from);
  }

  private TransportState stateOf(Part part) {
    long number = mixers.next();
    if (underTake.isPresent()) {
      return new Recording(number, part, true);
    }
    return riders.areRiding()
        ? new Riding(number, part, riders.riding())
        : new Playing(number, part);
  }

  private Part part() {
    return state.get().part().orElse(Part.REST);
  }

  /** The project as it is heard now. */
  private Project heardProject() {
    Project shown = session.shown();
    return underTake.map(u -> u.apply(shown)).orElse(shown);
  }

  private void start(long from) {
    Project project = heardProject();
    Range range = part().in(project);
    Optional<Mixer> kept = mixers.kept(project);
    if (kept.isPresent()) {
      sound(kept.get(), from, range);
      return;
    }
    halt();
    mixers.make(project, from, mixer -> sound(mixer, from, part().in(project)), this::stop);
  }

  private void sound(Mixer mixer, long from, Range range) {
    player.play(mixer, from, from < range.toFrame() ? range : Range.once(from, from));
    begun = true;
    timer.start();
  }

  /** Plays something that is not the film from its playhead, once. */
  private void soundOnce(Mixer mixer, long from, long to) {
    player.play(mixer, from, Range.once(from, to));
    begun = true;
    timer.start();
  }

  /**
   * Plays a stretch of another or of this project without moving the playhead, once.
   *
   * @param heard which tracks to play
   */
  public void audition(Project project, Predicate<Track> heard, long from, long to) {
    stop();
    state.set(new Auditioning(mixers.next()));
    mixers.makeOnce(project, heard, from, mixer -> soundOnce(mixer, from, to), this::stop);
  }

  /**
   * Plays the film from the playhead while a take is spoken over it, after a count.
   *
   * @param under what is heard of the film meanwhile
   * @param countSeconds how long is counted; 0: not at all
   * @param begun runs when the film begins to be made ready after the count
   */
  public void record(UnaryOperator<Project> under, int countSeconds, Runnable begun) {
    stop();
    loudspeaker.setSpeed(1);
    underTake = Optional.of(under);
    mixers.forget();
    Runnable film =
        () -> {
          counting = false;
          begun.run();
          state.set(stateOf(Part.REST));
          start(session.playhead());
        };
    if (countSeconds <= 0) {
      film.run();
      return;
    }
    state.set(new Recording(mixers.next(), Part.REST, false));
    count(countSeconds, film);
  }

  /** Lets the film rest while a take does. */
  public void rest() {
    if (state.get() instanceof Recording) {
      halt();
      state.set(new Recording(mixers.next(), Part.REST, false));
    }
  }

  /** Goes on with the film after {@link #rest}, from the playhead. */
  public void goOn() {
    if (state.get() instanceof Recording) {
      state.set(stateOf(Part.REST));
      start(session.playhead());
    }
  }

  /** Sounds a count, then goes on. */
  private void count(int seconds, Runnable then) {
    CountIn count = CountIn.of(seconds, session.shown().sampleRate());
    afterCount = then;
    counting = true;
    makeOnce(count);
  }

  /** Plays a sound that belongs to no project, once. */
  public void audition(CountIn sound) {
    stop();
    state.set(new Auditioning(mixers.next()));
    makeOnce(sound);
  }

  private void makeOnce(CountIn sound) {
    mixers.make(
        sound.project(),
        sound.library(),
        t -> true,
        0,
        mixer -> soundOnce(mixer, 0, sound.project().lengthFrames()),
        this::stop);
  }

  /** Lets a place be heard for a moment, as the playhead is dragged over it. */
  public void scrub(long frame) {
    Project project = session.shown();
    if (!state.get().isStopped() || project.lengthFrames() == 0) {
      return;
    }
    long to = Math.min(project.lengthFrames(), frame + project.frames(SCRUB_SECONDS));
    Range moment = Range.once(Math.min(frame, to), to);
    Optional<Mixer> kept = mixers.kept(project);
    if (kept.isPresent()) {
      player.touchUpon(kept.get(), moment);
      return;
    }
    mixers.make(
        project,
        moment.fromFrame(),
        mixer -> {
          if (state.get().isStopped()) {
            player.touchUpon(mixer, moment);
          }
        },
        () -> {});
  }

  /** Lets one track be heard alone for as long as somebody wishes; empty: all again. */
  public void hearAlone(Optional<String> trackId) {
    mixers.setAlone(trackId);
    takeOver();
  }

  /**
   * Lets files that have gone or come back be heard as they are now.
   *
   * @param gone those that are not there, which was said
   */
  public void hearAnew(Set<Path> gone) {
    sounds.countAsTold(gone);
    takeOver();
  }

  private void handsChanged() {
    mixers.forget();
    if (state.get().part().isPresent()) {
      riders.begin(session.shown().sampleRate());
      state.set(stateOf(part()));
      takeOver();
    }
  }

  /** Lets an edit be heard; of several made in a row the last. */
  private void takeOver() {
    Project project = heardProject();
    mixers.forget();
    if (state.get().part().isEmpty()) {
      return;
    }
    if (!begun) {
      start(session.playhead());
      return;
    }
    Part part = part();
    mixers.replace(project, mixer -> player.replace(mixer, part.in(project)));
  }

  /** Stops whatever sounds; what hands have done is written. */
  public void stop() {
    boolean returns = state.get().part().filter(Part::returns).isPresent();
    if (underTake.isPresent()) {
      underTake = Optional.empty();
      mixers.forget();
    }
    counting = false;
    state.set(new Stopped(mixers.next()));
    halt();
    if (returns) {
      moveTo(returnFrame);
    }
    riders.end();
  }

  private void halt() {
    begun = false;
    timer.stop();
    player.stop();
  }

  private void follow() {
    boolean over = !player.isPlaying();
    if (counting) {
      if (over) {
        begun = false;
        afterCount.run();
      }
      return;
    }
    if (state.get() instanceof Auditioning) {
      auditionFrame.set(player.positionFrame());
    } else {
      moveTo(player.positionFrame());
      riders.follow();
    }
    if (over) {
      stop();
    }
  }

  private void moveTo(long frame) {
    following = true;
    session.seek(frame);
    following = false;
  }

  /** A person has put the playhead elsewhere: a loop goes on within itself, or becomes the film. */
  private void playheadMoved() {
    if (following || state.get().part().isEmpty()) {
      return;
    }
    Range range = part().in(session.shown());
    long at = session.playhead();
    if (part() != Part.REST && (at < range.fromFrame() || at >= range.toFrame())) {
      state.set(stateOf(Part.REST));
    }
    start(at);
  }

  @Override
  public void close() {
    stop();
    loudspeaker.close();
  }
}

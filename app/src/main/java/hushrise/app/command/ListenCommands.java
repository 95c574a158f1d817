package hushrise.app.command;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.play.Loudspeaker;
import hushrise.app.play.Meters;
import hushrise.app.play.Part;
import hushrise.app.play.Transport;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.play.Ears;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Stream;

/** The ways of listening: which part, how fast, how loud, through what. */
public final class ListenCommands {

  /** What is heard before and after the spot that matters. */
  private static final double AROUND_SECONDS = 2;

  private static final double[] SPEEDS = {0.5, 0.6, 0.75, 0.9, 1, 1.25, 1.5, 1.75, 2};
  private static final double EARS_STEP_DB = 3;

  private final Session session;
  private final Transport transport;
  private final Loudspeaker loudspeaker;
  private final Meters meters;
  private final Messages messages;

  public ListenCommands(Session session, Transport transport, Meters meters, Messages messages) {
    this.session = session;
    this.transport = transport;
    loudspeaker = transport.loudspeaker();
    this.meters = meters;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.PLAY, transport::toggle)
        .set(CommandId.PLAY_SELECTION, () -> playChosen(0, false))
        .set(CommandId.PLAY_AROUND, this::playAround)
        .set(CommandId.PLAY_LOOP, this::loop)
        .set(CommandId.PASSAGE_NEXT, () -> toPassage(true))
        .set(CommandId.PASSAGE_PREVIOUS, () -> toPassage(false))
        .set(CommandId.SLOWER, () -> changeSpeed(-1))
        .set(CommandId.FASTER, () -> changeSpeed(1))
        .set(CommandId.OWN_SPEED, () -> setSpeed(1))
        .set(CommandId.EARS_MONO, () -> hearThrough(Ears.Through.MONO))
        .set(CommandId.EARS_SMALL, () -> hearThrough(Ears.Through.SMALL_SPEAKER))
        .set(CommandId.EARS_LOUDER, () -> changeEars(EARS_STEP_DB))
        .set(CommandId.EARS_QUIETER, () -> changeEars(-EARS_STEP_DB))
        .set(CommandId.OVER_GO, this::goToOver);
  }

  private void playChosen(double aroundSeconds, boolean loops) {
    Selection chosen = session.selection();
    if (chosen.spanIn(session.shown()).isEmpty()) {
      messages.say(text("play.nothing"));
      return;
    }
    transport.play(
        new Part(p -> chosen.spanIn(p).map(s -> widened(p, s, aroundSeconds)), loops, !loops));
  }

  private static Span widened(Project project, Span span, double seconds) {
    long by = project.frames(seconds);
    return new Span(Math.max(0, span.startFrame() - by), span.endFrame() + by);
  }

  /** Again and again, with a little before and after; the same key ends it. */
  private void loop() {
    if (transport.stateProperty().get().part().filter(Part::loops).isPresent()) {
      transport.stop();
    } else {
      playChosen(AROUND_SECONDS, true);
      messages.say(text("play.looping"));
    }
  }

  private void playAround() {
    Span here = new Span(session.playhead(), session.playhead());
    transport.play(new Part(p -> Optional.of(widened(p, here, AROUND_SECONDS)), false, true));
  }

  private void toPassage(boolean next) {
    long at = session.playhead();
    List<Span> all = Passages.of(session.present());
    // Just after a passage has begun, "the one before" is the one before that one.
    long slack = session.present().frames(1);
    Optional<Span> found =
        next
            ? all.stream().filter(s -> s.startFrame() > at).findFirst()
            : all.stream()
                .filter(s -> s.startFrame() < at - slack)
                .max(Comparator.comparingLong(Span::startFrame));
    found.ifPresentOrElse(
        s -> {
          transport.stop();
          session.seek(s.startFrame());
          transport.toggle();
        },
        () -> messages.say(text("passage.noOther")));
  }

  private void changeSpeed(int by) {
    int nearest = 0;
    for (int i = 0; i < SPEEDS.length; i++) {
      if (Math.abs(SPEEDS[i] - loudspeaker.speedProperty().get())
          < Math.abs(SPEEDS[nearest] - loudspeaker.speedProperty().get())) {
        nearest = i;
      }
    }
    setSpeed(SPEEDS[Math.clamp(nearest + by, 0, SPEEDS.length - 1)]);
  }

  private void setSpeed(double speed) {
    loudspeaker.setSpeed(speed);
    messages.say(speed == 1 ? text("speed.isOwn") : text("speed.is", "%.2f".formatted(speed)));
  }

  private void hearThrough(Ears.Through through) {
    Ears now = loudspeaker.earsProperty().get();
    Ears.Through to = now.through() == through ? Ears.Through.STEREO : through;
    loudspeaker.setEars(now.withThrough(to));
    messages.say(text("ears.say." + to));
  }

  private void changeEars(double byDb) {
    Ears now = loudspeaker.earsProperty().get();
    loudspeaker.setEars(now.withLevelDb(now.levelDb() + byDb));
    messages.say(
        text("ears.say.level", figure("%.0f", loudspeaker.earsProperty().get().levelDb())));
  }

  /** Goes to where a meter first passed full scale, and clears its mark. */
  private void goToOver() {
    Stream<Meters.Meter> all =
        Stream.concat(
            Stream.of(meters.mix()),
            session.present().tracks().stream().map(Track::id).map(meters::track));
    Optional<Meters.Meter> over = all.filter(m -> m.over().isPresent()).findFirst();
    OptionalLong frame = over.map(Meters.Meter::over).orElse(OptionalLong.empty());
    if (frame.isPresent()) {
      over.get().clear();
      session.seek(frame.getAsLong());
      messages.say(text("over.here"));
    } else {
      messages.say(text("over.none"));
    }
  }
}

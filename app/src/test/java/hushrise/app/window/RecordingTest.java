package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.play.TransportState;
import hushrise.app.record.Background;
import hushrise.app.record.Recording;
import hushrise.app.widget.Choice;
import hushrise.core.play.Player;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.sound.AudioInput;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.Devices;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.Surface;
import hushrise.media.RehearsalMicrophone;
import hushrise.media.StandInDevices;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Recording narration with the rehearsal microphone, by keys and mouse. */
class RecordingTest extends WindowTestCase {

  private final AtomicReference<RehearsalMicrophone> microphone = new AtomicReference<>();

  /** With a large buffer, as on a busy machine a small one runs dry too often to speak a line. */
  @Override
  Devices devices() {
    Devices standIns = new StandInDevices(0.5);
    return new Devices() {
      @Override
      public List<String> outputs() {
        return List.of("silent output");
      }

      @Override
      public AudioOutput output(String name, int sampleRate) {
        return standIns.output(name, sampleRate);
      }

      @Override
      public AudioOutput standIn(int sampleRate) {
        return standIns.standIn(sampleRate);
      }

      @Override
      public List<String> inputs() {
        return List.of("rehearsal microphone");
      }

      @Override
      public AudioInput input(String name, int sampleRate) {
        microphone.set((RehearsalMicrophone) standIns.input(name, sampleRate));
        return microphone.get();
      }

      @Override
      public List<String> surfaces() {
        return List.of("rehearsal surface");
      }

      @Override
      public Surface surface(String name, Surface.Listener listener) {
        return standIns.surface(name, listener);
      }
    };
  }

  private Recording recording() {
    return window.recording();
  }

  private void open(double seconds) {
    untilOpen();
    press(KeyCode.SHIFT, KeyCode.R);
    until("the input is open", () -> recording().stateProperty().get() == Recording.State.READY);
    robot.interact(
        () -> {
          recording().countInSecondsProperty().set(0);
          recording().draftsProperty().set(false);
          microphone.get().beQuiet();
          window.session().seek(Math.round(seconds * RATE));
        });
  }

  private void measureDelay() {
    robot.clickOn("#recorder-latency");
    until("the delay is measured", () -> status().contains("ms later"));
  }

  /** Speaks the line once the film has played for a moment; gives the frame at which that was. */
  private Spoken speakAt(double seconds) {
    AtomicLong frame = new AtomicLong();
    until(
        "the film has reached the place",
        () -> window.transport().player().soundingFrame() >= Math.round(seconds * RATE));
    // Again when something came between looking and speaking.
    long late;
    long dry;
    do {
      microphone.get().beQuiet();
      dry = untilTheSoundHasRunFor(RATE);
      frame.set(window.transport().player().soundingFrame());
      microphone.get().speak();
      late = window.transport().player().soundingFrame() - frame.get();
    } while (late > 96 || window.transport().player().underRuns() != dry);
    return new Spoken(frame.get(), dry);
  }

  /**
   * When somebody began to speak.
   *
   * @param frame of the film
   * @param underRuns how often the sound had run dry before; when it is just then running dry, that
   *     is counted a moment later
   */
  private record Spoken(long frame, long underRuns) {}

  /**
   * Speaks the whole line into a take, and once more where the sound ran dry meanwhile, as then no
   * part of it is where it was heard; gives the frame at which it was begun.
   *
   * @param takeSeconds where the take begins
   * @param seconds where to speak at the earliest
   */
  private long speakWhole(double takeSeconds, double seconds) {
    Player player = window.transport().player();
    long lasts = microphone.get().spoken().length;
    Spoken began;
    do {
      began = speakAt(seconds);
      long end = began.frame + lasts - Math.round(takeSeconds * RATE);
      until("the line is spoken", () -> recording().frames() > end);
    } while (player.underRuns() != began.underRuns);
    return began.frame;
  }

  /**
   * On a busy machine the sound runs dry; a take is back in step only in the next pause. Gives how
   * often it has run dry by then.
   */
  private long untilTheSoundHasRunFor(long frames) {
    Player player = window.transport().player();
    AtomicLong since = new AtomicLong(player.soundingFrame());
    AtomicLong ranDry = new AtomicLong(player.underRuns());
    until(
        "the sound has not run dry for a while",
        () -> {
          if (ranDry.getAndSet(player.underRuns()) != player.underRuns()) {
            since.set(player.soundingFrame());
          }
          return player.soundingFrame() - since.get() >= frames;
        });
    return ranDry.get();
  }

  private Clip newest() {
    Clip clip = window.session().selection().oneClip().flatMap(project()::clip).orElseThrow();
    return clip;
  }

  /** Where in a take the line begins, from a frame on, by correlation with it. */
  private static long lineIn(SampleSource take, float[] line, long fromFrame) {
    int length = (int) take.lengthFrames();
    float[] heard = new float[length];
    take.read(0, length, heard, new float[length], 0);
    int count = 24_000;
    int from = 4_000;
    double best = 0;
    int at = 0;
    for (int place = (int) fromFrame; place + from + count < length; place++) {
      double sum = 0;
      for (int i = 0; i < count; i += 3) {
        sum += heard[place + from + i] * line[from + i];
      }
      if (sum > best) {
        best = sum;
        at = place;
      }
    }
    return at;
  }

  /** A line that is spoken again and again, as the sound ran dry, is not to reach other lines. */
  private void leaveRoomAfter(double seconds) {
    long from = Math.round(seconds * RATE);
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "make room",
                    p ->
                        p.withEachTrack(
                            t ->
                                t.kind() == TrackKind.VOICE
                                    ? t.withClips(
                                        t.clips().stream()
                                            .filter(c -> c.startFrame() < from)
                                            .toList())
                                    : t)));
  }

  @Test
  void whatHasBeenChosenStaysChosenWhereTheListGivesItUp() {
    untilOpen();
    press(KeyCode.SHIFT, KeyCode.R);
    until(
        "the input is open",
        () -> window.recording().stateProperty().get() == Recording.State.READY);
    for (String id : new String[] {"recorder-input", "recorder-background", "recorder-count"}) {
      Choice<?> choice = find(id);
      Object chosen = choice.getValue();
      robot.interact(() -> choice.getSelectionModel().clearSelection());
      QuickRobot.settle();
      assertThat(choice.getValue()).as(id).isNotNull().isEqualTo(chosen);
      assertThat(choice.getSelectionModel().getSelectedItem()).isEqualTo(chosen);
    }
    Choice<Integer> count = find("recorder-count");
    robot.interact(() -> count.getSelectionModel().select(1));
    assertThat(window.recording().countInSecondsProperty().get()).isEqualTo(2);
    robot.interact(() -> count.getSelectionModel().clearSelection());
    assertThat(window.recording().countInSecondsProperty().get()).isEqualTo(2);
    assertThat(window.recording().stateProperty().get()).isEqualTo(Recording.State.READY);
    assertThat(status()).doesNotContain("wrong");
  }

  @Test
  void aTakeLandsWhereItWasSpokenAndASecondOneStacks() throws Exception {
    open(40);
    leaveRoomAfter(40);
    measureDelay();
    assertClose(recording().latencyFrames(), RehearsalMicrophone.LATENCY_SECONDS * RATE, 240);
    double levelBefore = music().levelDb();
    press(KeyCode.CONTROL, KeyCode.R);
    until(
        "it records",
        () -> window.transport().stateProperty().get() instanceof TransportState.Recording);
    long spoken = speakWhole(40, 40.6);
    press(KeyCode.CONTROL, KeyCode.R);
    until("the take has landed", () -> status().contains("lies where it was spoken"));
    untilQuiet();
    Clip clip = newest();
    assertThat(clip.startFrame()).isEqualTo(40L * RATE);
    Media media = project().media(clip.mediaId()).orElseThrow();
    long earliest = spoken - clip.startFrame() - RATE / 2;
    long line = lineIn(store.samples(media, RATE), microphone.get().spoken(), earliest);
    assertClose(clip.startFrame() + line, spoken, 0.005 * RATE);
    assertThat(music().levelDb()).as("nothing was edited").isEqualTo(levelBefore);
    assertThat(media.file().getParent()).isEqualTo(folder.resolve("first-ferry takes"));
    assertThat(media.title()).isEqualTo("take 01.wav");
    robot.interact(() -> window.session().seek(40L * RATE));
    robot.clickOn("#recorder-record");
    speakAt(40.4);
    until("more is spoken", () -> recording().frames() > 2L * RATE);
    robot.clickOn("#recorder-record");
    until(
        "it has landed",
        () -> status().contains("take 02.wav is heard here in place of take 01.wav"));
    assertThat(newest().id()).isEqualTo(clip.id());
    assertThat(newest().otherTakes()).hasSize(1);
    press(KeyCode.SHIFT, KeyCode.A);
    assertThat(status()).contains("take 01.wav");
    assertThat(newest().mediaId()).isEqualTo(clip.mediaId());
  }

  @Test
  void aTakeRestsAndGoesOnAndWhateverStopsTheFilmEndsItWithItsFileKept() {
    open(60);
    robot.interact(() -> recording().backgroundProperty().set(Background.OFF));
    robot.clickOn("#recorder-record");
    until("it records", () -> recording().frames() > RATE / 2);
    Node growing = find("lane-voice").lookup(".take-underway");
    assertThat(growing.isVisible()).isTrue();
    double soFar = growing.getBoundsInLocal().getWidth();
    until("the take grows on its lane", () -> growing.getBoundsInLocal().getWidth() > soFar + 2);
    assertThat(window.meters().track(music().id()).db(0)).isLessThan(-50);
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
    assertThat(recording().stateProperty().get()).isEqualTo(Recording.State.RESTING);
    long rested = recording().frames();
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
    until("it goes on", () -> recording().frames() > rested + RATE / 2);
    press(KeyCode.SPACE);
    until("the take has landed", () -> window.session().selection().oneClip().isPresent());
    assertThat(recording().stateProperty().get()).isEqualTo(Recording.State.READY);
    until("what was growing has gone", () -> !growing.isVisible());
    assertThat(project().media(newest().mediaId()).orElseThrow().lengthFrames())
        .isGreaterThan(rested + RATE / 2);
    press(KeyCode.SPACE);
    until("the music is back", () -> window.meters().track(music().id()).db(0) > -40);
  }

  @Test
  void aCheckGivesAVerdictWithItsFigures() {
    open(5);
    microphone.get().speak();
    robot.clickOn("#recorder-check");
    until("there is a verdict", () -> recording().verdictProperty().get().isPresent());
    Label verdict = find("recorder-verdict");
    assertThat(verdict.getText()).startsWith("Good").contains("LUFS");
    robot.interact(() -> microphone.get().beQuiet());
    robot.clickOn("#recorder-check");
    until(
        "there is another",
        () ->
            recording().stateProperty().get() == Recording.State.READY
                && recording().verdictProperty().get().isPresent());
    assertThat(verdict.getText()).startsWith("Nothing is heard");
  }

  @Test
  void itsSpeechIsFoundAndItsHushDraftedAndTheTextToReadGoesAlong() {
    open(16);
    robot.interact(() -> recording().draftsProperty().set(true));
    TextArea text = find("reading-text");
    String script = "The first passage.\n\nThe second one.\n\nThe third.";
    robot.interact(() -> text.setText(script));
    robot.clickOn("#recorder-record");
    until("the text is read", () -> find("reading").isVisible());
    assertThat(project().script()).hasValue(script);
    press(KeyCode.ALT, KeyCode.PAGE_DOWN);
    assertThat(window.recorderPane().reading().current()).isEqualTo(1);
    long spoken = speakAt(16.5).frame;
    long lasts = microphone.get().spoken().length + RATE;
    until("the line is spoken", () -> 16L * RATE + recording().frames() > spoken + lasts);
    robot.clickOn("#recorder-record");
    until("a hush is drafted", () -> window.session().draft().isPresent());
    assertThat(music().hushes()).hasSizeGreaterThanOrEqualTo(4);
    assertThat(project().firstTrack(TrackKind.VOICE).orElseThrow().clips()).hasSize(5);
  }

  @Test
  void aFolderThatIsNoFolderIsSaidAndNothingRuns() throws Exception {
    open(20);
    Path file = Files.writeString(folder.resolve("not a folder"), "x");
    chosen.next(file);
    robot.clickOn("#recorder-folder");
    robot.clickOn("#recorder-record");
    assertThat(status()).contains("choose another one");
    assertThat(recording().stateProperty().get()).isEqualTo(Recording.State.READY);
    assertThat(window.transport().stateProperty().get().isStopped()).isTrue();
  }
}

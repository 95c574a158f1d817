package hushrise.app.record;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.play.Transport;
import hushrise.app.play.TransportState;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.play.CountIn;
import hushrise.core.project.Project;
import hushrise.core.record.InputCheck;
import hushrise.core.record.LatencyCheck;
import hushrise.core.record.Recorder;
import hushrise.core.record.TakeSink;
import hushrise.core.sound.Devices;
import hushrise.media.MediaStore;
import java.util.Optional;
import java.util.function.LongSupplier;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.util.Duration;

/**
 * Recording narration against the picture: the input, its check, a take that is counted in, rests,
 * goes on and ends; {@link Landing} puts it in its place. What is lowered meanwhile is given back
 * by itself, as it belongs to the transport's state and to no project.
 */
public final class Recording implements AutoCloseable {

  private static final int RATE = Project.DEFAULT_SAMPLE_RATE;
  private static final double LISTENED_AFTER_SECONDS = 1.2;

  /** What is going on. */
  public enum State {
    /** No input is open. */
    OFF,
    /** The input is heard. */
    READY,
    CHECKING,
    RECORDING,
    RESTING
  }

  private final Session session;
  private final Transport transport;
  private final Devices devices;
  private final Jobs jobs;
  private final Messages messages;
  private final Landing landing;
  private final ReadOnlyObjectWrapper<State> state = new ReadOnlyObjectWrapper<>(State.OFF);
  private final ObjectProperty<String> inputName;
  private final ObjectProperty<Background> background =
      new SimpleObjectProperty<>(Background.LOWERED);
  private final IntegerProperty countInSeconds = new SimpleIntegerProperty(3);
  private final BooleanProperty drafts = new SimpleBooleanProperty(true);
  private final TakeFiles files;
  private final Latencies latencies = new Latencies();
  private final ReadOnlyObjectWrapper<Optional<InputCheck.Result>> verdict =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private Optional<Recorder> recorder = Optional.empty();
  private Optional<InputCheck> check = Optional.empty();
  private Optional<SpokenTake> take = Optional.empty();
  private long startFrame;

  /**
   * @param draftsHush shows a draft of the hush that a new take wants
   */
  public Recording(
      Session session,
      Transport transport,
      Devices devices,
      MediaStore store,
      Jobs jobs,
      Messages messages,
      Runnable draftsHush) {
    this.session = session;
    this.transport = transport;
    this.devices = devices;
    this.jobs = jobs;
    this.messages = messages;
    landing = new Landing(session, store, jobs, messages, draftsHush);
    files = new TakeFiles(session);
    inputName = new SimpleObjectProperty<>(devices.inputs().getFirst());
    transport.stateProperty().addListener((p, was, now) -> transportChanged(now));
    inputName.addListener(
        (p, was, now) -> {
          if (state.get() != State.OFF) {
            close();
            open();
          }
        });
  }

  public ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** What is recorded from; the name of a device. */
  public ObjectProperty<String> inputNameProperty() {
    return inputName;
  }

  public ObjectProperty<Background> backgroundProperty() {
    return background;
  }

  public IntegerProperty countInSecondsProperty() {
    return countInSeconds;
  }

  /** Whether the hush that a new take wants is drafted at once. */
  public BooleanProperty draftsProperty() {
    return drafts;
  }

  /** Where takes are kept. */
  public TakeFiles files() {
    return files;
  }

  /** What the last check of the input has found. */
  public ReadOnlyObjectProperty<Optional<InputCheck.Result>> verdictProperty() {
    return verdict.getReadOnlyProperty();
  }

  /** The largest sample since this was last asked, in dBFS. */
  public double peakDb() {
    return recorder.map(Recorder::takePeakDb).orElse(Double.NEGATIVE_INFINITY);
  }

  /** How long the take is so far, in frames. */
  public long frames() {
    return recorder.map(Recorder::frames).orElse(0L);
  }

  /** Opens the input, so that it is heard. */
  public void open() {
    if (state.get() != State.OFF) {
      return;
    }
    try {
      recorder = Optional.of(new Recorder(devices.input(inputName.get(), RATE), RATE, new Told()));
      state.set(State.READY);
    } catch (Problem e) {
      messages.complain(e.getMessage());
    }
  }

  private final class Told implements Recorder.Listener {
    @Override
    public void inputLost(String sentence) {
      Platform.runLater(
          () -> {
            boolean kept = isTaking();
            end();
            close();
            messages.complain(kept ? text("record.lost.kept", sentence) : sentence);
          });
    }

    @Override
    public void failed(String sentence) {
      Platform.runLater(
          () -> {
            end();
            messages.complain(sentence);
          });
    }
  }

  private boolean isTaking() {
    return state.get() == State.RECORDING || state.get() == State.RESTING;
  }

  /** Hears somebody speak for three seconds and says whether the input is set well. */
  public void check() {
    open();
    if (state.get() != State.READY) {
      return;
    }
    InputCheck hears = new InputCheck(RATE);
    check = Optional.of(hears);
    verdict.set(Optional.empty());
    recorder.orElseThrow().check(hears);
    state.set(State.CHECKING);
    messages.say(text("record.speak"));
    PauseTransition wait = new PauseTransition(Duration.seconds(InputCheck.SECONDS + 0.1));
    wait.setOnFinished(e -> lookAt(hears, wait));
    wait.play();
  }

  private void lookAt(InputCheck hears, PauseTransition wait) {
    if (state.get() != State.CHECKING || check.filter(hears::equals).isEmpty()) {
      return;
    }
    if (!hears.isDone()) {
      wait.setDuration(Duration.millis(100));
      wait.playFromStart();
      return;
    }
    state.set(State.READY);
    InputCheck.Result found = hears.result();
    verdict.set(Optional.of(found));
    messages.say(words(found));
  }

  /** What a check has found, in words. */
  public static String words(InputCheck.Result found) {
    return text(
        "record.verdict." + found.verdict(),
        figure("%.1f", found.peakDb()),
        figure("%.1f", found.speechLufs()),
        figure("%.1f", found.speechLufs() - found.noiseLufs()));
  }

  /** Begins a take at the playhead, or ends the one that is under way. */
  public void toggle() {
    if (isTaking()) {
      end();
    } else {
      begin();
    }
  }

  private void begin() {
    open();
    if (state.get() == State.OFF || session.shown().lengthFrames() == 0) {
      return;
    }
    startFrame = session.playhead();
    Background under = background.get();
    long at = startFrame;
    try {
      SpokenTake begun = SpokenTake.into(files.next(), at, RATE);
      take = Optional.of(begun);
      recorder.orElseThrow().begin(begun.samples(), at, sounding(), latencyFrames());
    } catch (Problem e) {
      messages.complain(e.getMessage());
      return;
    }
    messages.say(text("record.counting", countInSeconds.get()));
    transport.record(
        p -> under.under(p, at),
        countInSeconds.get(),
        () -> messages.say(text("record.recording")));
    state.set(State.RECORDING);
  }

  /** The frame of the film that sounds, while it does; -1 during the count. */
  private LongSupplier sounding() {
    return () ->
        transport.stateProperty().get() instanceof TransportState.Recording r && r.sounds()
            ? transport.player().soundingFrame()
            : -1;
  }

  /** Lets the take rest, or goes on with it. */
  public void rest() {
    if (state.get() == State.RECORDING && frames() > 0) {
      recorder.orElseThrow().rest();
      state.set(State.RESTING);
      transport.rest();
      session.seek(startFrame + frames());
      messages.say(text("record.resting"));
    } else if (state.get() == State.RESTING) {
      session.seek(startFrame + frames());
      state.set(State.RECORDING);
      recorder.orElseThrow().goOn();
      transport.goOn();
      messages.say(text("record.recording"));
    }
  }

  /** Whatever stops the film ends the take. */
  private void transportChanged(TransportState now) {
    if (isTaking() && !(now instanceof TransportState.Recording)) {
      end();
    }
  }

  private void end() {
    if (!isTaking()) {
      return;
    }
    state.set(State.READY);
    recorder.ifPresent(Recorder::end);
    transport.stop();
    take.ifPresent(spoken -> landing.take(spoken, drafts));
    take = Optional.empty();
  }

  /** Ends the take that is under way, if one is, and goes on once every take has its place. */
  public void finish(Runnable then) {
    end();
    landing.finish(then);
  }

  /** Lets another take of the selected clip be heard. */
  public void another(int by) {
    landing.another(by);
  }

  /** How much later than it was spoken a sample arrives, as it was measured for these devices. */
  public long latencyFrames() {
    return latencies.frames(outputName(), inputName.get());
  }

  private String outputName() {
    return transport.loudspeaker().outputNameProperty().get();
  }

  /** Measures the latency: plays a tone and listens for it. */
  public void measureLatency() {
    open();
    if (state.get() != State.READY) {
      return;
    }
    state.set(State.CHECKING);
    float[] tone = LatencyCheck.tone(RATE);
    int listened = tone.length + (int) (LISTENED_AFTER_SECONDS * RATE);
    float[] sound = java.util.Arrays.copyOf(tone, listened);
    TakeSink.Kept kept = new TakeSink.Kept(listened);
    recorder.orElseThrow().begin(kept, 0, () -> transport.player().soundingFrame(), 0);
    transport.audition(CountIn.ofSound(sound, RATE));
    PauseTransition wait = new PauseTransition(Duration.seconds(listened / (double) RATE + 0.5));
    wait.setOnFinished(
        e -> {
          if (state.get() != State.CHECKING) {
            return;
          }
          recorder.ifPresent(Recorder::end);
          state.set(State.READY);
          found(kept);
        });
    wait.play();
  }

  private void found(TakeSink.Kept kept) {
    jobs.run(
        () -> LatencyCheck.frames(kept.samples(), RATE),
        frames -> {
          latencies.keep(outputName(), inputName.get(), frames);
          messages.say(text("record.latency", Math.round(frames * 1000.0 / RATE)));
        });
  }

  /** Ends the take that is under way and lets the input go. */
  @Override
  public void close() {
    end();
    recorder.ifPresent(Recorder::close);
    recorder = Optional.empty();
    state.set(State.OFF);
  }
}

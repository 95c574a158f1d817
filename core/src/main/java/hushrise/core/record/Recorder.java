package hushrise.core.record;

import hushrise.core.Decibels;
import hushrise.core.sound.AudioInput;
import hushrise.core.sound.InputLost;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Listens to an input on a thread of its own: tells how loud it is, and gives on a take while one
 * is recorded. A take begins with the sample that was spoken at its first frame of the timeline;
 * while it rests, nothing is written, and it goes on with the sample that was spoken where it
 * rested.
 *
 * <p>Where the film stands still for a moment, as the sound ran dry, what is spoken from then on
 * belongs that much earlier than where the take has got to. Words are kept whole; in the next pause
 * the take is brought back into step.
 */
public final class Recorder implements AutoCloseable {

  private static final Logger LOG = LoggerFactory.getLogger(Recorder.class);

  /** How long samples may wait for the clock to settle. */
  private static final double WAITING_SECONDS = 2;

  /** Is told what happens to a take; on the recorder's thread. */
  public interface Listener {

    /** The input is gone; a take that was under way has ended. */
    void inputLost(String sentence);

    /** The take cannot be written any further; it has ended. */
    void failed(String sentence);
  }

  /** A take under way. */
  private static final class Take {
    private final TakeSink writer;
    private final long startFrame;
    private final LongSupplier soundingFrame;
    private InputClock clock;
    private final float[] waiting;
    private int waitingCount;
    private long firstWaiting;
    private boolean aligned;
    private final Step step;

    Take(TakeSink writer, long startFrame, LongSupplier soundingFrame, long latency, int rate) {
      this.writer = writer;
      this.startFrame = startFrame;
      this.soundingFrame = soundingFrame;
      this.clock = new InputClock(latency);
      this.waiting = new float[(int) (WAITING_SECONDS * rate)];
      this.step = new Step(writer, rate);
    }
  }

  private final AudioInput input;
  private final int sampleRate;
  private final Listener listener;
  private final Thread thread;
  private final float[] block = new float[480];
  private final Object taking = new Object();
  private Optional<Take> take = Optional.empty();
  private boolean resting;
  private long latencyFrames;
  private long arrived;
  private volatile float peak;
  private volatile boolean closed;
  private volatile Optional<InputCheck> check = Optional.empty();

  /**
   * @param input closed together with the recorder
   */
  public Recorder(AudioInput input, int sampleRate, Listener listener) {
    this.input = input;
    this.sampleRate = sampleRate;
    this.listener = listener;
    thread =
        Thread.ofPlatform()
            .name("hushrise-recorder")
            .priority(Thread.MAX_PRIORITY)
            .daemon()
            .start(this::work);
  }

  public String inputName() {
    return input.name();
  }

  /** The largest sample since this was last asked, in dBFS. */
  public double takePeakDb() {
    float highest = peak;
    peak = 0;
    return Decibels.ofFactor(highest);
  }

  /** Lets a check hear what comes. */
  public void check(InputCheck of) {
    check = Optional.of(of);
  }

  /**
   * Begins a take.
   *
   * @param writer takes samples without delay; whoever gave it closes it once the take has ended
   * @param startFrame where on the timeline it begins
   * @param soundingFrame the frame that sounds at any moment; before the film runs, anything
   * @param latency how much later than it was spoken a sample arrives
   */
  public void begin(TakeSink writer, long startFrame, LongSupplier soundingFrame, long latency) {
    synchronized (taking) {
      endTake();
      latencyFrames = latency;
      resting = false;
      take = Optional.of(new Take(writer, startFrame, soundingFrame, latency, sampleRate));
    }
  }

  /** Lets the take rest, as the film does. */
  public void rest() {
    synchronized (taking) {
      resting = true;
    }
  }

  /** Goes on with the take, as the film does. */
  public void goOn() {
    synchronized (taking) {
      resting = false;
      take.ifPresent(
          t -> {
            t.clock = new InputClock(latencyFrames);
            t.aligned = false;
            t.waitingCount = 0;
          });
    }
  }

  /** Ends the take, which is not closed; empty when there was none or it has ended by itself. */
  public Optional<TakeSink> end() {
    synchronized (taking) {
      return endTake();
    }
  }

  private Optional<TakeSink> endTake() {
    Optional<TakeSink> ended = take.map(t -> t.writer);
    take.filter(t -> !t.aligned && !resting).ifPresent(this::align);
    take = Optional.empty();
    return ended;
  }

  /** How many frames of the take are written. */
  public long frames() {
    synchronized (taking) {
      return take.map(t -> t.writer.frames()).orElse(0L);
    }
  }

  @SuppressWarnings("CatchingUnchecked") // the edge of the thread: whatever goes wrong is said
  private void work() {
    try {
      while (!closed) {
        int n = input.read(block);
        heard(n);
      }
    } catch (InputLost e) {
      if (!closed) {
        listener.inputLost(e.getMessage());
      }
    } catch (Throwable e) {
      if (!closed) {
        LOG.error("Recording failed", e);
        listener.failed(String.valueOf(e.getMessage()));
      }
    }
  }

  private void heard(int n) {
    float highest = peak;
    for (int i = 0; i < n; i++) {
      highest = Math.max(highest, Math.abs(block[i]));
    }
    peak = highest;
    check.ifPresent(c -> c.add(block, n));
    synchronized (taking) {
      arrived += n;
      if (take.isPresent() && !resting) {
        try {
          write(take.get(), n);
        } catch (hushrise.core.Problem e) {
          take = Optional.empty();
          listener.failed(e.getMessage());
        }
      }
    }
  }

  private void write(Take t, int n) {
    long sounding = t.soundingFrame.getAsLong();
    if (t.aligned) {
      if (sounding >= 0) {
        t.clock.look(arrived, sounding);
      }
      long ahead = t.clock.frameOf(arrived - n) - (t.startFrame + t.writer.frames());
      t.step.write(block, n, t.clock.isSettled() ? ahead : 0);
      return;
    }
    if (sounding < 0) {
      return; // the film does not run yet
    }
    if (t.waitingCount == 0) {
      t.firstWaiting = arrived - n;
    }
    t.clock.look(arrived, sounding);
    System.arraycopy(block, 0, t.waiting, t.waitingCount, n);
    t.waitingCount += n;
    boolean full = t.waitingCount + block.length > t.waiting.length;
    long next = t.startFrame + t.writer.frames();
    boolean reached = t.clock.frameOf(t.firstWaiting + t.waitingCount) > next;
    if ((t.clock.isSettled() && reached) || full) {
      align(t);
    }
  }

  /** Writes what has waited from the sample on that was spoken where the take goes on. */
  private void align(Take t) {
    long next = t.startFrame + t.writer.frames();
    long skip = next - t.clock.frameOf(t.firstWaiting);
    if (skip < 0) {
      // The first samples were spoken after that: silence stands for what nobody has heard.
      t.writer.write(
          new float[(int) Math.min(-skip, sampleRate)], 0, (int) Math.min(-skip, sampleRate));
      skip = 0;
    }
    int from = (int) Math.min(skip, t.waitingCount);
    t.writer.write(t.waiting, from, t.waitingCount - from);
    t.waitingCount = 0;
    t.aligned = true;
  }

  @Override
  public void close() {
    closed = true;
    end();
    input.close();
  }
}

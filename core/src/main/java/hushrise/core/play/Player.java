package hushrise.core.play;

import hushrise.core.mix.Mixer;
import hushrise.core.sound.AudioOutput;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Plays what a mixer renders through an output. The position follows the frames that have sounded,
 * so a picture that follows it is in step with the ear.
 *
 * <p>What is wanted is one run in a volatile field. A thread of its own takes up whatever run
 * stands there, renders small blocks and hands them to the output, which sets the pace; it leaves a
 * run as soon as another one, or none, is wanted. So nobody ever waits for it: {@link #play} and
 * {@link #stop} return at once. In its loop nothing is allocated and no lock is taken. A run that
 * fails ends and is told; the thread lives on.
 */
public final class Player implements AutoCloseable {

  /** Frames handed over at once: 10.7 ms at 48 kHz. */
  static final int BLOCK = 512;

  private static final Logger LOG = LoggerFactory.getLogger(Player.class);
  private static final Duration CLOSING = Duration.ofSeconds(2);

  /** One stretch of playing, from one call of {@link #play} on. */
  private static final class Run {
    private final long fromFrame;
    private volatile Mixer mixer;
    private volatile long toFrame;
    private volatile boolean begun;

    Run(Mixer mixer, long fromFrame, long toFrame) {
      this.mixer = mixer;
      this.fromFrame = fromFrame;
      this.toFrame = toFrame;
    }
  }

  private final AudioOutput output;
  private final Consumer<Throwable> failed;
  private final Thread thread;
  private final float[] left = new float[BLOCK];
  private final float[] right = new float[BLOCK];
  private final AtomicInteger peakLeft = new AtomicInteger();
  private final AtomicInteger peakRight = new AtomicInteger();
  private volatile Run wanted;
  private volatile long restFrame;
  private volatile boolean closed;

  /**
   * @param output closed together with the player
   * @param failed is told what ended a run before its time; on the player's thread
   */
  public Player(AudioOutput output, Consumer<Throwable> failed) {
    this.output = output;
    this.failed = failed;
    this.thread = Thread.ofPlatform().name("hushrise-player").daemon().start(this::work);
  }

  public String outputName() {
    return output.name();
  }

  /**
   * Plays from {@code fromFrame} to {@code toFrame}; what is playing stops.
   *
   * @param sound renders the project; used by the player alone until another run is wanted
   */
  public void play(Mixer sound, long fromFrame, long toFrame) {
    wanted = new Run(sound, fromFrame, toFrame);
    LockSupport.unpark(thread);
  }

  /**
   * Goes on with another mixer from the next block, without a jump: an edit while playing. Nothing
   * happens while nothing plays.
   *
   * @param toFrame where it now ends
   */
  public void replace(Mixer sound, long toFrame) {
    Run run = wanted;
    if (run != null) {
      sound.follow(run.mixer);
      run.toFrame = toFrame;
      run.mixer = sound;
    }
  }

  /** Stops; the position stays where it is. */
  public void stop() {
    Run run = wanted;
    if (run != null) {
      restFrame = positionOf(run);
      wanted = null;
      LockSupport.unpark(thread);
    }
    peakLeft.set(0);
    peakRight.set(0);
  }

  public boolean isPlaying() {
    return wanted != null;
  }

  /** The frame that is sounding, or where playing stopped. */
  public long positionFrame() {
    Run run = wanted;
    return run == null ? restFrame : positionOf(run);
  }

  private long positionOf(Run run) {
    return run.begun
        ? Math.min(run.fromFrame + output.framesSounded(), run.toFrame)
        : run.fromFrame;
  }

  /** The largest sample handed over since this was last asked, left, full scale 1. */
  public float takePeakLeft() {
    return Float.intBitsToFloat(peakLeft.getAndSet(0));
  }

  /** The largest sample handed over since this was last asked, right, full scale 1. */
  public float takePeakRight() {
    return Float.intBitsToFloat(peakRight.getAndSet(0));
  }

  private void work() {
    while (!closed) {
      Run run = wanted;
      if (run == null) {
        LockSupport.park(this);
      } else {
        perform(run);
      }
    }
  }

  @SuppressWarnings("CatchingUnchecked") // the edge of the thread: it must live on
  private void perform(Run run) {
    long reached = run.fromFrame;
    try {
      output.flush();
      run.begun = true;
      render(run);
      reached = positionOf(run);
      output.flush();
    } catch (Throwable e) {
      LOG.error("Playing failed", e);
      failed.accept(e);
    }
    if (isWanted(run)) {
      restFrame = reached;
      wanted = null;
    }
  }

  private boolean isWanted(Run run) {
    return run.equals(wanted) && !closed;
  }

  private void render(Run run) {
    long at = run.fromFrame;
    while (isWanted(run) && at < run.toFrame) {
      int n = (int) Math.min(BLOCK, run.toFrame - at);
      Mixer now = run.mixer;
      now.begin();
      now.render(at, n, left, right);
      keepPeak(peakLeft, left, n);
      keepPeak(peakRight, right, n);
      output.write(left, right, n);
      at += n;
    }
    while (isWanted(run) && run.fromFrame + output.framesSounded() < at) {
      LockSupport.parkNanos(2_000_000);
    }
  }

  /** Bits of floats that are not negative are in the order of the floats. */
  private static void keepPeak(AtomicInteger kept, float[] samples, int n) {
    float peak = 0;
    for (int i = 0; i < n; i++) {
      peak = Math.max(peak, Math.abs(samples[i]));
    }
    kept.accumulateAndGet(Float.floatToRawIntBits(peak), Math::max);
  }

  @Override
  public void close() {
    stop();
    closed = true;
    LockSupport.unpark(thread);
    try {
      if (!thread.join(CLOSING)) {
        LOG.warn("The player is still busy with {}", output.name());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    output.close();
  }
}

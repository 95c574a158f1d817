package hushrise.core.play;

import hushrise.core.mix.Mixer;
import hushrise.core.sound.AudioOutput;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;

/**
 * Plays what a mixer renders through an output. The position follows the frames that have sounded,
 * so a picture that follows it is in step with the ear.
 *
 * <p>One thread of its own renders small blocks and hands them to the output, which sets the pace.
 * In that loop nothing is allocated and no lock is taken; a changed project arrives as another
 * mixer in a volatile field, read once for each block.
 */
public final class Player implements AutoCloseable {

  /** Frames handed over at once: 10.7 ms at 48 kHz. */
  static final int BLOCK = 512;

  private final AudioOutput output;
  private final Thread thread;
  private final ReentrantLock lock = new ReentrantLock();
  private final Condition wake = lock.newCondition();
  private volatile Mixer mixer;
  private volatile boolean playing;
  private volatile boolean closed;
  private volatile long startFrame;
  private volatile long endFrame;
  private volatile boolean idle = true;
  private volatile float peakLeft;
  private volatile float peakRight;

  /**
   * @param output closed together with the player
   */
  public Player(AudioOutput output) {
    this.output = output;
    this.thread = Thread.ofPlatform().name("hushrise-player").daemon().start(this::run);
  }

  public String outputName() {
    return output.name();
  }

  /**
   * Plays from {@code fromFrame} to {@code toFrame}; what is playing stops first.
   *
   * @param sound renders the project
   */
  public void play(Mixer sound, long fromFrame, long toFrame) {
    stop();
    lock.lock();
    try {
      output.flush();
      mixer = sound;
      startFrame = fromFrame;
      endFrame = toFrame;
      playing = true;
      idle = false;
      wake.signalAll();
    } finally {
      lock.unlock();
    }
  }

  /** Goes on with another mixer from the next block, without a jump: an edit while playing. */
  public void replace(Mixer sound) {
    sound.follow(mixer);
    mixer = sound;
  }

  /** Stops; the position stays where it is. */
  public void stop() {
    lock.lock();
    try {
      if (playing) {
        long reached = positionFrame();
        playing = false;
        while (!idle) {
          wake.awaitUninterruptibly();
        }
        output.flush();
        startFrame = reached;
      }
    } finally {
      lock.unlock();
    }
    peakLeft = 0;
    peakRight = 0;
  }

  public boolean isPlaying() {
    return playing;
  }

  /** The frame that is sounding, or where playing stopped. */
  public long positionFrame() {
    return Math.min(startFrame + output.framesSounded(), endFrame);
  }

  /** The largest sample of the block last handed over, left, full scale 1. */
  public float peakLeft() {
    return peakLeft;
  }

  /** The largest sample of the block last handed over, right, full scale 1. */
  public float peakRight() {
    return peakRight;
  }

  private void run() {
    float[] left = new float[BLOCK];
    float[] right = new float[BLOCK];
    while (!closed) {
      awaitStart();
      long at = startFrame;
      while (playing && at < endFrame) {
        int n = (int) Math.min(BLOCK, endFrame - at);
        Mixer now = mixer;
        now.begin();
        now.render(at, n, left, right);
        peakLeft = peak(left, n);
        peakRight = peak(right, n);
        output.write(left, right, n);
        at += n;
      }
      drain(at);
      becomeIdle();
    }
  }

  private static float peak(float[] samples, int n) {
    float peak = 0;
    for (int i = 0; i < n; i++) {
      peak = Math.max(peak, Math.abs(samples[i]));
    }
    return peak;
  }

  /** Lets the last frames sound before playing counts as over. */
  private void drain(long until) {
    while (playing && !closed && startFrame + output.framesSounded() < until) {
      java.util.concurrent.locks.LockSupport.parkNanos(2_000_000);
    }
  }

  private void awaitStart() {
    lock.lock();
    try {
      while (!playing && !closed) {
        wake.awaitUninterruptibly();
      }
    } finally {
      lock.unlock();
    }
  }

  private void becomeIdle() {
    lock.lock();
    try {
      if (playing) {
        startFrame = positionFrame();
        output.flush();
      }
      playing = false;
      idle = true;
      wake.signalAll();
    } finally {
      lock.unlock();
    }
  }

  @Override
  public void close() {
    stop();
    lock.lock();
    try {
      closed = true;
      wake.signalAll();
    } finally {
      lock.unlock();
    }
    try {
      thread.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    output.close();
  }
}

package hushrise.core.record;

import java.util.Arrays;

/**
 * Tells where on the timeline the samples of an input were spoken.
 *
 * <p>Each time samples arrive, the frame that sounds is noted beside their count. Both run at the
 * same rate, so their difference is a constant but for the times at which threads happen to look;
 * the middle one of the latest is taken, which a few late looks do not move. Where the film has
 * stood still, or where two devices run at slightly different rates, the middle one follows. Not
 * for two threads.
 */
public final class InputClock {

  /** So many looks settle it; the latest so many count. */
  static final int LATEST = 32;

  private final long latencyFrames;
  private final long[] offsets = new long[LATEST];
  private final long[] sorted = new long[LATEST];
  private long count;

  /**
   * @param latencyFrames how much later than it was spoken a sample arrives, output and input
   *     together
   */
  public InputClock(long latencyFrames) {
    this.latencyFrames = latencyFrames;
  }

  /**
   * Notes a look.
   *
   * @param arrived how many samples have arrived so far
   * @param soundingFrame the frame of the timeline that sounds now
   */
  public void look(long arrived, long soundingFrame) {
    offsets[(int) (count++ % LATEST)] = soundingFrame - arrived;
  }

  /** Whether enough looks were taken. */
  public boolean isSettled() {
    return count >= LATEST;
  }

  /** The frame of the timeline at which the sample of an index was spoken. */
  public long frameOf(long index) {
    int n = (int) Math.min(count, LATEST);
    System.arraycopy(offsets, 0, sorted, 0, n);
    Arrays.sort(sorted, 0, n);
    return index + (n == 0 ? 0 : sorted[n / 2]) - latencyFrames;
  }
}

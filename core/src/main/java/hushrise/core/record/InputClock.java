package hushrise.core.record;

import java.util.Arrays;

/**
 * Tells where on the timeline the samples of an input were spoken.
 *
 * <p>Each time samples arrive, the frame that sounds is noted beside their count. Both run at the
 * same rate, so their difference is a constant but for the times at which threads happen to look;
 * the middle one of many is taken, which a few late looks do not move. Not for two threads.
 */
public final class InputClock {

  /** So many looks settle it. */
  static final int ENOUGH = 24;

  private static final int MOST = 400;

  private final long latencyFrames;
  private final long[] offsets = new long[MOST];
  private int count;

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
    if (count < MOST) {
      offsets[count++] = soundingFrame - arrived;
    }
  }

  /** Whether enough looks were taken. */
  public boolean isSettled() {
    return count >= ENOUGH;
  }

  /** The frame of the timeline at which the sample of an index was spoken. */
  public long frameOf(long index) {
    long[] sorted = Arrays.copyOf(offsets, count);
    Arrays.sort(sorted);
    return index + (count == 0 ? 0 : sorted[count / 2]) - latencyFrames;
  }
}

package hushrise.core.play;

/** Lets a stretch from the middle of something come in and go without a click. */
final class SoftEdges {

  /** How long it takes, in frames: 3 ms at 48 kHz. */
  private static final int FRAMES = 144;

  private SoftEdges() {}

  /**
   * @param since frames from the stretch's beginning to the block's
   * @param n frames in the block, from 0 on in both channels
   */
  static void comeIn(long since, float[] left, float[] right, int n) {
    for (int i = 0; i < n && since + i < FRAMES; i++) {
      float factor = Math.max(0, (since + i) / (float) FRAMES);
      left[i] *= factor;
      right[i] *= factor;
    }
  }

  /**
   * @param remaining frames from the block's beginning to the stretch's end
   * @param n frames in the block, from 0 on in both channels
   */
  static void go(long remaining, float[] left, float[] right, int n) {
    for (int i = (int) Math.max(0, remaining - FRAMES); i < n; i++) {
      float factor = Math.max(0, (remaining - 1 - i) / (float) FRAMES);
      left[i] *= factor;
      right[i] *= factor;
    }
  }
}

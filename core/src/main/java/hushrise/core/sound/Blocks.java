package hushrise.core.sound;

import hushrise.core.time.Span;

/** Goes through a stretch of stereo sound block by block. */
public final class Blocks {

  /** Frames in a block. */
  public static final int FRAMES = 1 << 14;

  private Blocks() {}

  /** Fills the beginning of both arrays with frames. */
  @FunctionalInterface
  public interface Reader {
    void read(long startFrame, int frames, float[] left, float[] right);
  }

  /** Takes what was read. */
  @FunctionalInterface
  public interface Taker {

    /**
     * Takes a block.
     *
     * @param planar left and right
     * @param frames how many of them count
     * @param startFrame where they lie
     */
    void take(float[][] planar, int frames, long startFrame);
  }

  /** Reads a stretch and hands it on; the arrays are used again for every block. */
  public static void each(Span span, Reader reader, Taker taker) {
    float[][] planar = new float[2][FRAMES];
    for (long at = span.startFrame(); at < span.endFrame(); at += FRAMES) {
      int n = (int) Math.min(FRAMES, span.endFrame() - at);
      reader.read(at, n, planar[0], planar[1]);
      taker.take(planar, n, at);
    }
  }

  /** Reads a stretch of a source; mono leaves the right array as it is. */
  public static void each(Span span, SampleSource source, Taker taker) {
    each(span, (at, n, left, right) -> source.read(at, n, left, right, 0), taker);
  }
}

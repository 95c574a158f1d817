package hushrise.core.sound;

import java.nio.FloatBuffer;

/**
 * Lowest, highest and RMS sample of a sound in buckets of several sizes, so that a waveform of any
 * width is drawn from about as many values as it has columns. Mono and stereo alike: the lower and
 * higher of both channels, the RMS over both.
 *
 * <p>The layout of the values: for each bucket {@code min, max, meanSquare}; all buckets of {@link
 * #BASE} frames first, then those of {@code BASE * RATIO}, and so on while more than one is left.
 */
public final class Peaks {

  /** Frames in the smallest bucket. */
  public static final int BASE = 256;

  /** How many buckets make one of the next size. */
  public static final int RATIO = 4;

  private static final int VALUES = 3;

  private final FloatBuffer values;
  private final long lengthFrames;
  private final int sizes;

  /**
   * @param values in the layout that {@link PeakBuilder} makes; only read
   * @param lengthFrames the sound's length
   */
  public Peaks(FloatBuffer values, long lengthFrames) {
    this.values = values;
    this.lengthFrames = lengthFrames;
    int count = 0;
    long expected = 0;
    for (long n = buckets(lengthFrames, 0); n > 0; n = n == 1 ? 0 : (n + RATIO - 1) / RATIO) {
      expected += n * VALUES;
      count++;
    }
    if (values.limit() != expected) {
      throw new IllegalArgumentException(
          "Peaks of %d values, expected %d".formatted(values.limit(), expected));
    }
    this.sizes = count;
  }

  private static long buckets(long frames, int size) {
    long n = (frames + BASE - 1) / BASE;
    for (int i = 0; i < size; i++) {
      n = (n + RATIO - 1) / RATIO;
    }
    return n;
  }

  public long lengthFrames() {
    return lengthFrames;
  }

  /**
   * Takes the extremes over a stretch, from the largest buckets that are no longer than the
   * stretch; the buckets at its ends are taken whole.
   *
   * @param from the first frame, clipped to the sound
   * @param to the frame after the last
   * @param result receives min, max and RMS; zeros outside the sound
   */
  public void over(double from, double to, float[] result) {
    double first = Math.max(0, from);
    double last = Math.min((double) lengthFrames, to);
    result[0] = 0;
    result[1] = 0;
    result[2] = 0;
    if (last <= first || sizes == 0) {
      return;
    }
    int size = 0;
    long bucketFrames = BASE;
    long start = 0;
    while (size + 1 < sizes && bucketFrames * RATIO <= last - first) {
      start += buckets(lengthFrames, size);
      size++;
      bucketFrames *= RATIO;
    }
    long firstBucket = (long) (first / bucketFrames);
    long lastBucket = Math.min((long) Math.ceil(last / bucketFrames), buckets(lengthFrames, size));
    float min = Float.MAX_VALUE;
    float max = -Float.MAX_VALUE;
    double squares = 0;
    for (long b = firstBucket; b < lastBucket; b++) {
      int at = (int) ((start + b) * VALUES);
      min = Math.min(min, values.get(at));
      max = Math.max(max, values.get(at + 1));
      squares += values.get(at + 2);
    }
    if (lastBucket > firstBucket) {
      result[0] = min;
      result[1] = max;
      result[2] = (float) Math.sqrt(squares / (lastBucket - firstBucket));
    }
  }
}

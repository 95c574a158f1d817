package hushrise.core.sound;

import hushrise.core.time.Span;
import java.nio.FloatBuffer;
import java.util.Arrays;

/** Makes {@link Peaks} while a sound streams by. Holds 12 bytes for each 256 frames. */
public final class PeakBuilder {

  private float[] values = new float[3 * 1024];
  private int count;
  private long frames;
  private int inBucket;
  private float min = Float.MAX_VALUE;
  private float max = -Float.MAX_VALUE;
  private double squares;

  /**
   * Takes the next frames.
   *
   * @param channels 1: only {@code left} is looked at
   */
  public void add(float[] left, float[] right, int channels, int offset, int n) {
    int done = 0;
    while (done < n) {
      int take = Math.min(n - done, Peaks.BASE - inBucket);
      scan(left, offset + done, take, channels);
      if (channels == 2) {
        scan(right, offset + done, take, channels);
      }
      inBucket += take;
      done += take;
      if (inBucket == Peaks.BASE) {
        closeBucket();
      }
    }
    frames += n;
  }

  private void scan(float[] samples, int offset, int n, int channels) {
    float low = min;
    float high = max;
    float sum = 0;
    for (int i = offset; i < offset + n; i++) {
      float x = samples[i];
      low = Math.min(low, x);
      high = Math.max(high, x);
      sum += x * x;
    }
    min = low;
    max = high;
    squares += sum / channels;
  }

  private void closeBucket() {
    push(min, max, (float) (squares / inBucket));
    min = Float.MAX_VALUE;
    max = -Float.MAX_VALUE;
    squares = 0;
    inBucket = 0;
  }

  private void push(float low, float high, float meanSquare) {
    if (count + 3 > values.length) {
      values = Arrays.copyOf(values, values.length * 2);
    }
    values[count++] = low;
    values[count++] = high;
    values[count++] = meanSquare;
  }

  /** How many frames have been taken. */
  public long frames() {
    return frames;
  }

  /** Ends the sound and gives all values in the layout of {@link Peaks}. */
  public float[] finish() {
    if (inBucket > 0) {
      closeBucket();
    }
    int from = 0;
    int to = count;
    while (to - from > 3) {
      for (int i = from; i < to; i += 3 * Peaks.RATIO) {
        join(i, Math.min(i + 3 * Peaks.RATIO, to));
      }
      from = to;
      to = count;
    }
    return Arrays.copyOf(values, count);
  }

  private void join(int from, int to) {
    float low = Float.MAX_VALUE;
    float high = -Float.MAX_VALUE;
    double sum = 0;
    for (int i = from; i < to; i += 3) {
      low = Math.min(low, values[i]);
      high = Math.max(high, values[i + 1]);
      sum += values[i + 2];
    }
    push(low, high, (float) (sum * 3 / (to - from)));
  }

  /** Takes a whole source. */
  public void addAll(SampleSource source) {
    Blocks.each(
        new Span(0, source.lengthFrames()),
        source,
        (planar, n, at) -> add(planar[0], planar[1], source.channels(), 0, n));
  }

  /** The peaks of a whole source, in memory. */
  public static Peaks of(SampleSource source) {
    PeakBuilder builder = new PeakBuilder();
    builder.addAll(source);
    return new Peaks(FloatBuffer.wrap(builder.finish()), builder.frames());
  }
}

package hushrise.core.loudness;

import hushrise.core.Decibels;
import java.util.Arrays;

/**
 * Holds the true peaks of a stereo mix under a ceiling. What lies under it comes out untouched, bit
 * for bit, only later.
 *
 * <p>A look-ahead limiter with linked channels, as described by U. Zölzer (Digital Audio Signal
 * Processing, 2nd edition, chapter 7.2) with the peak of ITU-R BS.1770-5 annex 2 in place of the
 * sample: for each frame the factor that brings the four times oversampled peak under the ceiling;
 * of these the least within reach on both sides; recovering exponentially; and that smoothed by two
 * moving averages. As those reach less far than the minimum by some frames, the factor has arrived
 * at the depth a peak needs before the peak does, and stays there while the interpolation between
 * its samples can see it.
 */
public final class Limiter {

  private static final double SMOOTHING_SECONDS = 0.0025;
  private static final double RECOVERY_SECONDS = 0.08;
  private static final double NEARLY_ONE = 1 - 1e-5;

  /** How many frames on both sides of a peak the factor stays: those its interpolation reads. */
  private static final int REACH_OF_PEAK = 8;

  private static final int TAPS = Oversampler.TAPS;

  /** The newest sample that an interpolated peak reads comes so much later than the peak. */
  private static final int AFTER_PEAK = TAPS / 2;

  private static final int CHUNK = 1024;

  private final float ceiling;
  private final double recovery;
  private final int delay;
  private final float[][] windows = new float[2][TAPS - 1 + CHUNK];
  private final float[][] waiting;
  private final LeastOf least;
  private final Average first;
  private final Average second;
  private final int settled;
  private double held = 1;
  private int quiet;
  private int at;
  private double lowest = 1;
  private long active;

  /**
   * @param sampleRate in Hz
   * @param ceilingDbtp no peak comes out above it, in dB relative to full scale
   */
  public Limiter(int sampleRate, double ceilingDbtp) {
    ceiling = (float) Decibels.toFactor(ceilingDbtp);
    recovery = 1 - Math.exp(-1 / (RECOVERY_SECONDS * sampleRate));
    int smoothing = (int) Math.max(2, Math.round(SMOOTHING_SECONDS * sampleRate));
    int reach = smoothing - 1 + REACH_OF_PEAK;
    least = new LeastOf(2 * reach + 1);
    first = new Average(smoothing);
    second = new Average(smoothing);
    delay = AFTER_PEAK + reach + smoothing - 1;
    settled = 2 * reach + 1 + 2 * smoothing + delay;
    quiet = settled;
    waiting = new float[2][delay];
  }

  /** How many frames later everything comes out. */
  public int delayFrames() {
    return delay;
  }

  /** How far it has turned down at most, in dB, at least 0. */
  public double mostDb() {
    return -Decibels.ofFactor(lowest);
  }

  /** For how many frames it has turned anything down. */
  public long activeFrames() {
    return active;
  }

  /**
   * Takes frames, and gives in their place those that came in {@link #delayFrames()} earlier;
   * silence before the first.
   */
  public void process(float[] left, float[] right, int frames) {
    for (int done = 0; done < frames; done += CHUNK) {
      int n = Math.min(CHUNK, frames - done);
      chunk(left, right, done, n);
    }
  }

  private void chunk(float[] left, float[] right, int from, int n) {
    System.arraycopy(left, from, windows[0], TAPS - 1, n);
    System.arraycopy(right, from, windows[1], TAPS - 1, n);
    float largest = Math.max(largest(windows[0], n), largest(windows[1], n));
    boolean under = largest * Oversampler.LARGEST_GAIN <= ceiling;
    if (under && quiet >= settled) {
      for (int i = 0; i < n; i++) {
        exchange(left, right, from + i, 1);
      }
    } else {
      for (int i = 0; i < n; i++) {
        exchange(left, right, from + i, factor(under ? 1 : needed(i)));
      }
    }
    System.arraycopy(windows[0], n, windows[0], 0, TAPS - 1);
    System.arraycopy(windows[1], n, windows[1], 0, TAPS - 1);
  }

  private static float largest(float[] window, int n) {
    float largest = 0;
    for (int i = 0; i < TAPS - 1 + n; i++) {
      largest = Math.max(largest, Math.abs(window[i]));
    }
    return largest;
  }

  /** The factor that a frame needs by itself. */
  private double needed(int i) {
    float peak = 0;
    for (float[] window : windows) {
      float between = Oversampler.between(window, i);
      float on = Math.max(Math.abs(window[i + TAPS / 2 - 1]), Math.abs(window[i + TAPS / 2]));
      peak = Math.max(peak, Math.max(between, on));
    }
    return peak > ceiling ? ceiling / peak : 1;
  }

  private double factor(double needed) {
    double low = least.push(needed);
    if (low < held) {
      held = low;
    } else {
      held += (low - held) * recovery;
      held = low == 1 && held > NEARLY_ONE ? 1 : held;
    }
    quiet = needed < 1 || held < 1 ? 0 : Math.min(settled, quiet + 1);
    return second.push(first.push(held));
  }

  private void exchange(float[] left, float[] right, int i, double factor) {
    float outLeft = waiting[0][at];
    float outRight = waiting[1][at];
    waiting[0][at] = left[i];
    waiting[1][at] = right[i];
    at = at + 1 == delay ? 0 : at + 1;
    if (factor < 1) {
      outLeft = (float) (outLeft * factor);
      outRight = (float) (outRight * factor);
      lowest = Math.min(lowest, factor);
      active++;
    }
    left[i] = outLeft;
    right[i] = outRight;
  }

  /** The least of the last values; those that can no longer be it are forgotten at once. */
  private static final class LeastOf {
    private final int count;
    private final double[] values;
    private final long[] times;
    private int head;
    private int size;
    private long now;

    LeastOf(int count) {
      this.count = count;
      values = new double[count];
      times = new long[count];
    }

    double push(double value) {
      if (size > 0 && times[head] <= now - count) {
        head = (head + 1) % count;
        size--;
      }
      while (size > 0 && values[(head + size - 1) % count] >= value) {
        size--;
      }
      values[(head + size) % count] = value;
      times[(head + size) % count] = now++;
      size++;
      return values[head];
    }
  }

  /** The mean of the last values; of ones alone it is 1 exactly. */
  private static final class Average {
    private final double[] values;
    private double sum;
    private int at;
    private int ones;

    Average(int count) {
      values = new double[count];
      Arrays.fill(values, 1);
      sum = count;
      ones = count;
    }

    double push(double value) {
      sum += value - values[at];
      values[at] = value;
      at = at + 1 == values.length ? 0 : at + 1;
      ones = value == 1 ? Math.min(values.length, ones + 1) : 0;
      if (ones == values.length) {
        sum = values.length;
        return 1;
      }
      return sum / values.length;
    }
  }
}

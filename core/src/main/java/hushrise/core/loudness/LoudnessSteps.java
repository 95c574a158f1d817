package hushrise.core.loudness;

import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.nio.FloatBuffer;
import java.util.Arrays;

/**
 * A sound's K-weighted energy in steps of 10 ms, from which its loudness at any gain is reckoned
 * without reading a sample again; and how many samples of each step are clipped.
 *
 * <p>A gain that changes slowly against 10 ms may be applied to the energies in place of the
 * samples. Energies of sounds that have nothing to do with one another add up.
 */
public final class LoudnessSteps {

  /** Steps in a second. */
  public static final int PER_SECOND = 100;

  /** Values for each step: energy left, energy right, highest sample, clipped samples. */
  public static final int VALUES = 4;

  /** A sample at or over this counts as clipped when it is not alone. */
  private static final float CLIPPED = 0.9999f;

  private static final int BLOCK_STEPS = 32;

  private final FloatBuffer values;
  private final int count;

  /**
   * Steps over values, such as those of a mapped file.
   *
   * @param values {@link #VALUES} for each step; only read
   */
  public LoudnessSteps(FloatBuffer values) {
    this.values = values;
    this.count = values.limit() / VALUES;
  }

  /** Reads a whole sound. */
  public static LoudnessSteps of(SampleSource source, int sampleRate, Progress progress) {
    return new LoudnessSteps(FloatBuffer.wrap(read(source, sampleRate, progress)));
  }

  /** Reads a whole sound into values to keep: {@link #VALUES} for each step. */
  public static float[] read(SampleSource source, int sampleRate, Progress progress) {
    int steps = stepsIn(source.lengthFrames(), sampleRate);
    float[] values = new float[steps * VALUES];
    int channels = source.channels();
    KWeighting[] filters = new KWeighting[channels];
    Arrays.setAll(filters, c -> new KWeighting(sampleRate));
    float[][] planar = new float[2][BLOCK_STEPS * (sampleRate / PER_SECOND + 1)];
    int[] run = new int[channels];
    for (int first = 0; first < steps; first += BLOCK_STEPS) {
      int last = Math.min(steps, first + BLOCK_STEPS);
      long from = frameOf(first, sampleRate);
      source.read(from, (int) (frameOf(last, sampleRate) - from), planar[0], planar[1], 0);
      for (int step = first; step < last; step++) {
        int at = (int) (frameOf(step, sampleRate) - from);
        int n = (int) (frameOf(step + 1, sampleRate) - from) - at;
        for (int c = 0; c < channels; c++) {
          values[step * VALUES + c] = (float) (filters[c].squares(planar[c], at, n) / n);
          values[step * VALUES + 2] =
              Math.max(values[step * VALUES + 2], highest(planar[c], at, n));
          run[c] = countClipped(planar[c], at, n, run[c], values, step * VALUES + 3);
        }
        if (channels == 1) {
          values[step * VALUES + 1] = values[step * VALUES];
        }
      }
      progress.at(last / (double) steps);
    }
    return values;
  }

  private static float highest(float[] samples, int from, int n) {
    float highest = 0;
    for (int i = from; i < from + n; i++) {
      highest = Math.max(highest, Math.abs(samples[i]));
    }
    return highest;
  }

  /**
   * Counts samples in runs of two or more at full scale; gives the length of the run at the end.
   */
  private static int countClipped(
      float[] samples, int from, int n, int runBefore, float[] counts, int index) {
    int run = runBefore;
    for (int i = from; i < from + n; i++) {
      if (Math.abs(samples[i]) >= CLIPPED) {
        run++;
        counts[index] += run == 2 ? 2 : run > 2 ? 1 : 0;
      } else {
        run = 0;
      }
    }
    return run;
  }

  /** How many steps cover a length. */
  public static int stepsIn(long frames, int sampleRate) {
    return (int) ((frames * PER_SECOND + sampleRate - 1) / sampleRate);
  }

  /** Where a step begins. */
  public static long frameOf(int step, int sampleRate) {
    return (long) step * sampleRate / PER_SECOND;
  }

  /** The step that begins nearest to a frame. */
  public static int nearestStep(long frame, int sampleRate) {
    return (int) Math.floorDiv(frame * PER_SECOND + sampleRate / 2, sampleRate);
  }

  public int count() {
    return count;
  }

  /**
   * The energy around a place between steps.
   *
   * @param channel 0 left, 1 right; the same for mono
   * @param place in steps; the middle of step {@code i} is {@code i + 0.5}
   */
  public double energyAt(int channel, double place) {
    double before = place - 0.5;
    int step = (int) Math.floor(before);
    double part = before - step;
    return (1 - part) * energy(channel, step) + part * energy(channel, step + 1);
  }

  /** The mean square of a step's K-weighted samples; 0 outside the sound. */
  public double energy(int channel, int step) {
    return step < 0 || step >= count() ? 0 : values.get(step * VALUES + channel);
  }

  /** The gated loudness of both channels over steps, in LUFS; minus infinity for silence. */
  public double lufs(int from, int to) {
    return GatedLoudness.lufs(i -> energy(0, i) + energy(1, i), from, to);
  }

  /** The highest absolute sample of a step, over both channels. */
  public float peak(int step) {
    return step < 0 || step >= count() ? 0 : values.get(step * VALUES + 2);
  }

  /** How many samples of a step are clipped, over both channels. */
  public int clipped(int step) {
    return step < 0 || step >= count() ? 0 : (int) values.get(step * VALUES + 3);
  }
}

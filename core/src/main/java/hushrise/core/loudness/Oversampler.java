package hushrise.core.loudness;

import java.util.Arrays;

/**
 * The largest magnitudes between the samples of one channel, by the 48-tap filter of ITU-R
 * BS.1770-5 annex 2 as four phases of 12. As a phase and its mirror image are the sum and the
 * difference of an even and an odd filter, the larger of their two outputs is the sum of the
 * magnitudes of these.
 *
 * <p>A block goes through in rows: copies of it that begin a sample later each, so that every step
 * takes values of one index from arrays, which the processor does many at a time. Both ways give
 * the same values to the last bit.
 */
final class Oversampler {

  static final int TAPS = 12;

  /** So many at a time leave all rows in the processor's nearest memory. */
  static final int MOST = 448;

  private static final int HALF = TAPS / 2;

  /** So many taps in one step; with more, Java's compiler takes one value at a time. */
  private static final int AT_ONCE = 3;

  /** The first two phases; the other two are the same from behind. */
  private static final float[][] PHASES = {
    {
      0.0017089843750f, 0.0109863281250f, -0.0196533203125f, 0.0332031250000f, -0.0594482421875f,
      0.1373291015625f, 0.9721679687500f, -0.1022949218750f, 0.0476074218750f, -0.0266113281250f,
      0.0148925781250f, -0.0083007812500f
    },
    {
      -0.0291748046875f, 0.0292968750000f, -0.0517578125000f, 0.0891113281250f, -0.1665039062500f,
      0.4650878906250f, 0.7797851562500f, -0.2003173828125f, 0.1015625000000f, -0.0582275390625f,
      0.0330810546875f, -0.0189208984375f
    },
  };

  private static final float[] EVEN_0 = half(PHASES[0], 1);
  private static final float[] ODD_0 = half(PHASES[0], -1);
  private static final float[] EVEN_1 = half(PHASES[1], 1);
  private static final float[] ODD_1 = half(PHASES[1], -1);

  private static final float ROUNDING = 1.0001f;

  /** No value between samples exceeds the largest of the samples around it by more. */
  static final float LARGEST_GAIN = largest(0, 0);

  /** By how much more than the steepest step a value may exceed the largest of the samples. */
  private static final float OF_STEEPEST = largest(1, HALF);

  /** By how much more the filter lets a sound through that does not move. */
  private static final float AT_REST = atRest();

  private final float[][] later = new float[TAPS][MOST];
  private final float[] even0 = new float[MOST];
  private final float[] odd0 = new float[MOST];
  private final float[] even1 = new float[MOST];
  private final float[] odd1 = new float[MOST];
  private final float[] values = new float[MOST];

  /** What a phase has in common with itself from behind, or what it differs by. */
  private static float[] half(float[] phase, int sign) {
    float[] half = new float[HALF];
    for (int tap = 0; tap < HALF; tap++) {
      half[tap] = (phase[tap] + sign * phase[TAPS - 1 - tap]) / 2;
    }
    return half;
  }

  /** The larger of both phases' sums of magnitudes, each times a power of its distance. */
  private static float largest(int power, int from) {
    double largest = 0;
    for (float[] phase : PHASES) {
      double sum = 0;
      for (int tap = 0; tap < TAPS; tap++) {
        sum += Math.abs(phase[tap]) * Math.pow(Math.abs(tap - from), power);
      }
      largest = Math.max(largest, sum);
    }
    return (float) (largest * ROUNDING);
  }

  private static float atRest() {
    double largest = 0;
    for (float[] phase : PHASES) {
      double sum = 0;
      for (float c : phase) {
        sum += c;
      }
      largest = Math.max(largest, Math.abs(sum));
    }
    return (float) (largest * ROUNDING);
  }

  /**
   * Whether no value between some samples passes an amplitude, as each lies no further off one of
   * them than its weights times the steepest step.
   *
   * @param first the first sample
   * @param n how many there are
   * @param largest the largest of them
   */
  static boolean staysUnder(float[] samples, int first, int n, float largest, float amplitude) {
    float steepest = (amplitude - AT_REST * largest) / OF_STEEPEST;
    for (int i = first + 1; i < first + n; i++) {
      if (Math.abs(samples[i] - samples[i - 1]) > steepest) {
        return false;
      }
    }
    return steepest >= 0;
  }

  /**
   * The largest magnitude between the two middle ones of twelve samples.
   *
   * @param first the index of the first of the twelve
   */
  static float between(float[] samples, int first) {
    float even0 = 0;
    float odd0 = 0;
    float even1 = 0;
    float odd1 = 0;
    for (int tap = 0; tap < HALF; tap++) {
      float newer = samples[first + TAPS - 1 - tap];
      float older = samples[first + tap];
      float sum = newer + older;
      float difference = newer - older;
      even0 = Math.fma(EVEN_0[tap], sum, even0);
      odd0 = Math.fma(ODD_0[tap], difference, odd0);
      even1 = Math.fma(EVEN_1[tap], sum, even1);
      odd1 = Math.fma(ODD_1[tap], difference, odd1);
    }
    return Math.max(Math.abs(even0) + Math.abs(odd0), Math.abs(even1) + Math.abs(odd1));
  }

  /**
   * The largest of n values of {@link #between}, one by one.
   *
   * @param least what is given when it is larger
   */
  static float largestOneByOne(float[] samples, int first, int n, float least) {
    float largest = least;
    for (int i = first; i < first + n; i++) {
      largest = Math.max(largest, between(samples, i));
    }
    return largest;
  }

  /**
   * The same in rows.
   *
   * @param n at most {@link #MOST}
   */
  float largestInRows(float[] samples, int first, int n, float least) {
    for (int tap = 0; tap < TAPS; tap++) {
      System.arraycopy(samples, first + tap, later[tap], 0, n);
    }
    Arrays.fill(even0, 0, n, 0);
    Arrays.fill(odd0, 0, n, 0);
    Arrays.fill(even1, 0, n, 0);
    Arrays.fill(odd1, 0, n, 0);
    for (int tap = 0; tap < HALF; tap += AT_ONCE) {
      addTaps(EVEN_0, ODD_0, tap, even0, odd0, n);
      addTaps(EVEN_1, ODD_1, tap, even1, odd1, n);
    }
    larger(even0, odd0, even1, odd1, values, n);
    float largest = least;
    for (int i = 0; i < n; i++) {
      if (values[i] > largest) {
        largest = values[i];
      }
    }
    return largest;
  }

  private void addTaps(float[] evens, float[] odds, int tap, float[] even, float[] odd, int n) {
    float[] p = newer(tap);
    float[] q = older(tap);
    float[] r = newer(tap + 1);
    float[] s = older(tap + 1);
    float[] t = newer(tap + 2);
    float[] u = older(tap + 2);
    float a = evens[tap];
    float b = evens[tap + 1];
    float c = evens[tap + 2];
    float d = odds[tap];
    float e = odds[tap + 1];
    float f = odds[tap + 2];
    for (int i = 0; i < n; i++) {
      even[i] =
          Math.fma(c, t[i] + u[i], Math.fma(b, r[i] + s[i], Math.fma(a, p[i] + q[i], even[i])));
      odd[i] = Math.fma(f, t[i] - u[i], Math.fma(e, r[i] - s[i], Math.fma(d, p[i] - q[i], odd[i])));
    }
  }

  private float[] newer(int tap) {
    return later[TAPS - 1 - tap];
  }

  private float[] older(int tap) {
    return later[tap];
  }

  private static void larger(float[] p, float[] q, float[] r, float[] s, float[] to, int n) {
    for (int i = 0; i < n; i++) {
      to[i] = Math.max(Math.abs(p[i]) + Math.abs(q[i]), Math.abs(r[i]) + Math.abs(s[i]));
    }
  }
}

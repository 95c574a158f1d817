package hushrise.core.loudness;

/**
 * True peak of one channel by four times oversampling (ITU-R BS.1770-5 annex 2).
 *
 * <p>The standard's 48-tap filter, as four phases of 12. No output of a phase can exceed the
 * largest input under it times the sum of the phase's coefficient magnitudes; a stretch whose
 * largest input stays under the peak found so far by that factor is passed over, which changes no
 * result and leaves most of a programme unfiltered.
 */
public final class TruePeakMeter {

  static final int TAPS = 12;
  private static final int STRETCH = 32;

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

  /** No value between samples exceeds the largest of the samples around it by more. */
  static final float LARGEST_GAIN = largestGain();

  private final float[] window = new float[TAPS - 1 + STRETCH];
  private int inStretch;
  private float samplePeak;
  private float truePeak;

  /**
   * A meter of what passes an amplitude: as long as nothing does, it gives that. It has heard the
   * first {@link #TAPS} - 1 of some samples, which do not count: were there silence before what
   * comes next, a peak would be found where it begins.
   */
  static TruePeakMeter from(float amplitude, float[] samples, int offset) {
    TruePeakMeter meter = new TruePeakMeter();
    meter.truePeak = amplitude;
    System.arraycopy(samples, offset, meter.window, 0, TAPS - 1);
    return meter;
  }

  private static float largestGain() {
    double largest = 0;
    for (float[] phase : PHASES) {
      double sum = 0;
      for (float c : phase) {
        sum += Math.abs(c);
      }
      largest = Math.max(largest, sum);
    }
    return (float) (largest * 1.0001);
  }

  /** Takes the next samples. */
  public void add(float[] samples, int offset, int n) {
    int done = 0;
    while (done < n) {
      int take = Math.min(n - done, STRETCH - inStretch);
      System.arraycopy(samples, offset + done, window, TAPS - 1 + inStretch, take);
      inStretch += take;
      done += take;
      if (inStretch == STRETCH) {
        closeStretch(STRETCH);
      }
    }
  }

  private void closeStretch(int length) {
    float largest = 0;
    for (int i = 0; i < TAPS - 1 + length; i++) {
      largest = Math.max(largest, Math.abs(window[i]));
    }
    if (largest > samplePeak) {
      for (int i = TAPS - 1; i < TAPS - 1 + length; i++) {
        samplePeak = Math.max(samplePeak, Math.abs(window[i]));
      }
    }
    if (largest * LARGEST_GAIN > truePeak) {
      oversample(length);
    }
    System.arraycopy(window, length, window, 0, TAPS - 1);
    inStretch = 0;
  }

  /** What a phase has in common with itself from behind, or what it differs by. */
  private static float[] half(float[] phase, int sign) {
    float[] half = new float[TAPS / 2];
    for (int tap = 0; tap < half.length; tap++) {
      half[tap] = (phase[tap] + sign * phase[TAPS - 1 - tap]) / 2;
    }
    return half;
  }

  /**
   * The largest magnitude between the two middle ones of twelve samples. As a phase and its mirror
   * image are the sum and the difference of an even and an odd filter, the larger of their two
   * outputs is the sum of the magnitudes of these.
   *
   * @param first the index of the first of the twelve
   */
  static float between(float[] window, int first) {
    float even0 = 0;
    float odd0 = 0;
    float even1 = 0;
    float odd1 = 0;
    for (int tap = 0; tap < TAPS / 2; tap++) {
      float newer = window[first + TAPS - 1 - tap];
      float older = window[first + tap];
      float sum = newer + older;
      float difference = newer - older;
      even0 = Math.fma(EVEN_0[tap], sum, even0);
      odd0 = Math.fma(ODD_0[tap], difference, odd0);
      even1 = Math.fma(EVEN_1[tap], sum, even1);
      odd1 = Math.fma(ODD_1[tap], difference, odd1);
    }
    return Math.max(Math.abs(even0) + Math.abs(odd0), Math.abs(even1) + Math.abs(odd1));
  }

  private void oversample(int length) {
    float peak = truePeak;
    for (int i = 0; i < length; i++) {
      peak = Math.max(peak, between(window, i));
    }
    truePeak = peak;
  }

  /** The largest sample so far as an amplitude, full scale 1. */
  public double samplePeak() {
    double peak = samplePeak;
    for (int i = TAPS - 1; i < TAPS - 1 + inStretch; i++) {
      peak = Math.max(peak, Math.abs(window[i]));
    }
    return peak;
  }

  /**
   * The largest value so far, of what has gone through the filter whole: all but the last up to 32
   * samples, as more may come that changes what lies between those.
   */
  double truePeakSoFar() {
    return Math.max(truePeak, samplePeak);
  }

  /**
   * The largest value so far between and on the samples, as an amplitude; never under the sample
   * peak.
   */
  public double truePeak() {
    TruePeakMeter rest = new TruePeakMeter();
    System.arraycopy(window, 0, rest.window, 0, window.length);
    rest.inStretch = inStretch;
    rest.truePeak = truePeak;
    rest.add(new float[STRETCH + TAPS], 0, STRETCH + TAPS);
    return Math.max(rest.truePeak, samplePeak());
  }
}

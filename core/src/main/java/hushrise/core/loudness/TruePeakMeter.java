package hushrise.core.loudness;

/**
 * True peak of one channel by four times oversampling (ITU-R BS.1770-5 annex 2).
 *
 * <p>No value between samples can exceed the largest sample around it by more than the filter's
 * weights allow, and less than that where the samples change little. A stretch in which nothing can
 * pass the peak found so far is passed over, which changes no result and leaves most of a programme
 * unfiltered ({@link Oversampler}).
 */
public final class TruePeakMeter {

  /** How many samples before a value between samples have a part in it. */
  static final int BEFORE = Oversampler.TAPS - 1;

  private static final int STRETCH = 32;
  private static final int BLOCK = Oversampler.MOST;

  /** With more open stretches than these, a block in rows takes less time than one by one. */
  private static final int MANY = BLOCK / STRETCH * 2 / 5;

  /**
   * What streams by is looked at one by one: rows are three times as fast, but for the first second
   * of a program several times as slow, and most programs that measure a file end soon.
   */
  private static final int NEVER = Integer.MAX_VALUE;

  private final float[] window = new float[BEFORE + BLOCK];
  private final int[] open = new int[BLOCK / STRETCH];
  private Oversampler rows;
  private int waiting;
  private float samplePeak;
  private float truePeak;

  /** Takes the next samples. */
  public void add(float[] samples, int offset, int n) {
    int done = 0;
    while (done < n) {
      int take = Math.min(n - done, BLOCK - waiting);
      System.arraycopy(samples, offset + done, window, BEFORE + waiting, take);
      waiting += take;
      done += take;
      if (waiting == BLOCK) {
        listen();
      }
    }
  }

  /** Looks into what has come and not been looked into. */
  private void listen() {
    look(window, 0, waiting, NEVER);
    System.arraycopy(window, waiting, window, 0, BEFORE);
    waiting = 0;
  }

  /**
   * The true peak between some samples, of which the first {@link #BEFORE} only lie before the
   * others: were there silence instead, a peak would be found where they begin. What was added
   * before is forgotten.
   *
   * @param least what is given when it is lower
   */
  float within(float[] samples, int offset, int n, float least) {
    samplePeak = 0;
    truePeak = least;
    for (int done = 0; done < n - BEFORE; done += BLOCK) {
      look(samples, offset + done, Math.min(BLOCK, n - BEFORE - done), MANY);
    }
    return Math.max(truePeak, samplePeak);
  }

  /**
   * Looks at n new samples, which lie behind the first {@link #BEFORE}.
   *
   * @param many more open stretches than these are looked at in rows
   */
  private void look(float[] samples, int first, int n, int many) {
    float under = truePeak / Oversampler.LARGEST_GAIN;
    int count = 0;
    for (int at = 0; at < n; at += STRETCH) {
      int length = Math.min(STRETCH, n - at);
      if (passes(samples, first + at, BEFORE + length, under)) {
        float here = largest(samples, first + at, BEFORE + length, 0);
        samplePeak = Math.max(samplePeak, here);
        if (!Oversampler.staysUnder(samples, first + at, BEFORE + length, here, truePeak)) {
          open[count] = at;
          count++;
        }
      }
    }
    if (count > many) {
      rows = rows == null ? new Oversampler() : rows;
      truePeak = rows.largestInRows(samples, first, n, truePeak);
      return;
    }
    for (int i = 0; i < count; i++) {
      int length = Math.min(STRETCH, n - open[i]);
      truePeak = Oversampler.largestOneByOne(samples, first + open[i], length, truePeak);
    }
  }

  private static boolean passes(float[] samples, int first, int n, float amplitude) {
    for (int i = first; i < first + n; i++) {
      if (Math.abs(samples[i]) > amplitude) {
        return true;
      }
    }
    return false;
  }

  /** Magnitudes stand in the order of their bits, which are compared many at a time. */
  private static float largest(float[] samples, int first, int n, float least) {
    int largest = Float.floatToRawIntBits(least);
    for (int i = first; i < first + n; i++) {
      largest = Math.max(largest, Float.floatToRawIntBits(samples[i]) & Integer.MAX_VALUE);
    }
    return Float.intBitsToFloat(largest);
  }

  /** The largest sample so far as an amplitude, full scale 1. */
  public double samplePeak() {
    return largest(window, BEFORE, waiting, samplePeak);
  }

  /**
   * The largest value so far between and on the samples, as an amplitude; never under the sample
   * peak.
   */
  public double truePeak() {
    TruePeakMeter rest = new TruePeakMeter();
    System.arraycopy(window, 0, rest.window, 0, window.length);
    rest.waiting = waiting;
    rest.samplePeak = samplePeak;
    rest.truePeak = truePeak;
    rest.add(new float[Oversampler.TAPS], 0, Oversampler.TAPS);
    rest.listen();
    return Math.max(rest.truePeak, rest.samplePeak);
  }
}

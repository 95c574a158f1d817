package hushrise.core.loudness;

/**
 * The K-weighting filter of ITU-R BS.1770-5 annex 1 for one channel, at any sample rate.
 *
 * <p>The standard gives coefficients for 48 kHz only: a high shelf for the head, then a high pass
 * (RLB). Both are second-order sections; their analogue prototypes (shelf: 1681.97 Hz, +4.0 dB, Q
 * 0.7072; high pass: 38.135 Hz, Q 0.5003) carried through the bilinear transform give the
 * standard's table at 48 kHz to its last digit, and the same response at other rates.
 */
public final class KWeighting {

  /** Some 300 dB under full scale. */
  private static final double NOTHING = 1e-15;

  private final double b0;
  private final double b1;
  private final double b2;
  private final double a1;
  private final double a2;
  private final double c1;
  private final double c2;
  private double shelf1;
  private double shelf2;
  private double pass1;
  private double pass2;

  public KWeighting(int sampleRate) {
    double k = Math.tan(Math.PI * 1681.974450955533 / sampleRate);
    double q = 0.7071752369554196;
    double high = Math.pow(10, 3.999843853973347 / 20);
    double band = Math.pow(high, 0.4996667741545416);
    double norm = 1 + k / q + k * k;
    b0 = (high + band * k / q + k * k) / norm;
    b1 = 2 * (k * k - high) / norm;
    b2 = (high - band * k / q + k * k) / norm;
    a1 = 2 * (k * k - 1) / norm;
    a2 = (1 - k / q + k * k) / norm;
    double k2 = Math.tan(Math.PI * 38.13547087602444 / sampleRate);
    double q2 = 0.5003270373238773;
    double norm2 = 1 + k2 / q2 + k2 * k2;
    c1 = 2 * (k2 * k2 - 1) / norm2;
    c2 = (1 - k2 / q2 + k2 * k2) / norm2;
  }

  /** Filters the next samples and gives the sum of their squares. */
  public double squares(float[] samples, int offset, int n) {
    double s1 = shelf1;
    double s2 = shelf2;
    double p1 = pass1;
    double p2 = pass2;
    double sum = 0;
    for (int i = offset; i < offset + n; i++) {
      double x = samples[i];
      double y = b0 * x + s1;
      s1 = b1 * x + s2 - a1 * y; // what is known before y first, as the next sample waits for this
      s2 = b2 * x - a2 * y;
      double z = y + p1;
      p1 = p2 - 2 * y - c1 * z;
      p2 = y - c2 * z;
      sum += z * z;
    }
    keep(s1, s2, p1, p2);
    return sum;
  }

  /**
   * Filters the next samples of two channels of one rate, as {@link #squares(float[], int, int)}
   * does each by itself, in little more than the time of one: neither waits for the other.
   *
   * @param sums is given both sums of squares
   */
  public static void squares(
      KWeighting left,
      KWeighting right,
      float[] leftSamples,
      float[] rightSamples,
      int offset,
      int n,
      double[] sums) {
    double b0 = left.b0;
    double b1 = left.b1;
    double b2 = left.b2;
    double a1 = left.a1;
    double a2 = left.a2;
    double c1 = left.c1;
    double c2 = left.c2;
    double s1 = left.shelf1;
    double s2 = left.shelf2;
    double p1 = left.pass1;
    double p2 = left.pass2;
    double t1 = right.shelf1;
    double t2 = right.shelf2;
    double q1 = right.pass1;
    double q2 = right.pass2;
    double leftSum = 0;
    double rightSum = 0;
    for (int i = offset; i < offset + n; i++) {
      double x = leftSamples[i];
      double y = b0 * x + s1;
      s1 = b1 * x + s2 - a1 * y;
      s2 = b2 * x - a2 * y;
      double z = y + p1;
      p1 = p2 - 2 * y - c1 * z;
      p2 = y - c2 * z;
      leftSum += z * z;
      x = rightSamples[i];
      y = b0 * x + t1;
      t1 = b1 * x + t2 - a1 * y;
      t2 = b2 * x - a2 * y;
      z = y + q1;
      q1 = q2 - 2 * y - c1 * z;
      q2 = y - c2 * z;
      rightSum += z * z;
    }
    left.keep(s1, s2, p1, p2);
    right.keep(t1, t2, q1, q2);
    sums[0] = leftSum;
    sums[1] = rightSum;
  }

  private void keep(double s1, double s2, double p1, double p2) {
    shelf1 = settled(s1);
    shelf2 = settled(s2);
    pass1 = settled(p1);
    pass2 = settled(p2);
  }

  /**
   * Filters the next samples of two channels of one rate.
   *
   * @param oneWeighted is filled with n filtered samples of the first from its beginning
   * @param otherWeighted the same of the second
   */
  static void weigh(
      KWeighting one,
      KWeighting other,
      float[] oneSamples,
      float[] otherSamples,
      int offset,
      int n,
      float[] oneWeighted,
      float[] otherWeighted) {
    double b0 = one.b0;
    double b1 = one.b1;
    double b2 = one.b2;
    double a1 = one.a1;
    double a2 = one.a2;
    double c1 = one.c1;
    double c2 = one.c2;
    double s1 = one.shelf1;
    double s2 = one.shelf2;
    double p1 = one.pass1;
    double p2 = one.pass2;
    double t1 = other.shelf1;
    double t2 = other.shelf2;
    double q1 = other.pass1;
    double q2 = other.pass2;
    for (int i = 0; i < n; i++) {
      double x = oneSamples[offset + i];
      double y = b0 * x + s1;
      s1 = b1 * x + s2 - a1 * y;
      s2 = b2 * x - a2 * y;
      double z = y + p1;
      p1 = p2 - 2 * y - c1 * z;
      p2 = y - c2 * z;
      oneWeighted[i] = (float) z;
      x = otherSamples[offset + i];
      y = b0 * x + t1;
      t1 = b1 * x + t2 - a1 * y;
      t2 = b2 * x - a2 * y;
      z = y + q1;
      q1 = q2 - 2 * y - c1 * z;
      q2 = y - c2 * z;
      otherWeighted[i] = (float) z;
    }
    one.keep(s1, s2, p1, p2);
    other.keep(t1, t2, q1, q2);
  }

  /** Whether the same samples would come out of both the same. */
  boolean standsLike(KWeighting other) {
    return shelf1 == other.shelf1
        && shelf2 == other.shelf2
        && pass1 == other.pass1
        && pass2 == other.pass2;
  }

  /** Goes on as if it had heard what another one of the same rate has. */
  void follow(KWeighting other) {
    shelf1 = other.shelf1;
    shelf2 = other.shelf2;
    pass1 = other.pass1;
    pass2 = other.pass2;
  }

  /** Whether nothing of what it has heard is left in it. */
  boolean isAtRest() {
    return shelf1 == 0 && shelf2 == 0 && pass1 == 0 && pass2 == 0;
  }

  /**
   * A state, or nothing once it has died away: in silence it would decay into numbers so small that
   * reckoning with them takes ten times as long.
   */
  private static double settled(double state) {
    return Math.abs(state) < NOTHING ? 0 : state;
  }
}

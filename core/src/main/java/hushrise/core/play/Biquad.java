package hushrise.core.play;

/**
 * A second-order filter for one channel, in transposed direct form II. Coefficients after Robert
 * Bristow-Johnson, <i>Cookbook formulae for audio equalizer biquad filter coefficients</i> (W3C
 * Note, 2021), with a Q of 0.7071: no hump at the corner.
 */
final class Biquad {

  /** Some 300 dB under full scale; a state under it would only decay into slow numbers. */
  private static final double NOTHING = 1e-15;

  private final double b0;
  private final double b1;
  private final double b2;
  private final double a1;
  private final double a2;
  private double s1;
  private double s2;

  private Biquad(double[] b, double a0, double a1, double a2) {
    b0 = b[0] / a0;
    b1 = b[1] / a0;
    b2 = b[2] / a0;
    this.a1 = a1 / a0;
    this.a2 = a2 / a0;
  }

  static Biquad lowPass(double hertz, int sampleRate) {
    double w = 2 * Math.PI * hertz / sampleRate;
    double cos = Math.cos(w);
    return of(w, new double[] {(1 - cos) / 2, 1 - cos, (1 - cos) / 2});
  }

  static Biquad highPass(double hertz, int sampleRate) {
    double w = 2 * Math.PI * hertz / sampleRate;
    double cos = Math.cos(w);
    return of(w, new double[] {(1 + cos) / 2, -1 - cos, (1 + cos) / 2});
  }

  private static Biquad of(double w, double[] b) {
    double alpha = Math.sin(w) / Math.sqrt(2);
    return new Biquad(b, 1 + alpha, -2 * Math.cos(w), 1 - alpha);
  }

  /** Filters in place. */
  void filter(float[] samples, int n) {
    double p1 = s1;
    double p2 = s2;
    for (int i = 0; i < n; i++) {
      double x = samples[i];
      double y = b0 * x + p1;
      p1 = b1 * x - a1 * y + p2;
      p2 = b2 * x - a2 * y;
      samples[i] = (float) y;
    }
    s1 = Math.abs(p1) < NOTHING ? 0 : p1;
    s2 = Math.abs(p2) < NOTHING ? 0 : p2;
  }
}

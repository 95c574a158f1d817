package hushrise.media;

import hushrise.core.sound.SampleSource;

/**
 * A source folded to mono at a whole fraction of its rate, read at any place: a windowed-sinc
 * low-pass, of which only every n-th value is worked out.
 */
final class Downsampler {

  private static final int TAPS_PER_FACTOR = 16;

  private final SampleSource source;
  private final int factor;
  private final float[] kernel;
  private float[] left = new float[0];
  private float[] right = new float[0];

  /**
   * @param toRate divides {@code fromRate}
   */
  Downsampler(SampleSource source, int fromRate, int toRate) {
    if (fromRate % toRate != 0) {
      throw new IllegalArgumentException(fromRate + " Hz is no multiple of " + toRate + " Hz");
    }
    this.source = source;
    factor = fromRate / toRate;
    kernel = kernel(factor);
  }

  private static float[] kernel(int factor) {
    if (factor == 1) {
      return new float[] {1};
    }
    int taps = TAPS_PER_FACTOR * factor + 1;
    float[] kernel = new float[taps];
    double sum = 0;
    for (int i = 0; i < taps; i++) {
      double x = i - taps / 2;
      double cut = 0.92 / factor;
      double sinc = x == 0 ? cut : Math.sin(Math.PI * cut * x) / (Math.PI * x);
      double window = 0.54 + 0.46 * Math.cos(2 * Math.PI * x / (taps - 1));
      kernel[i] = (float) (sinc * window);
      sum += kernel[i];
    }
    for (int i = 0; i < taps; i++) {
      kernel[i] /= (float) sum;
    }
    return kernel;
  }

  long length() {
    return (source.lengthFrames() + factor - 1) / factor;
  }

  /** Reads samples; outside the sound they are 0. */
  void read(long start, float[] into, int offset, int count) {
    int half = kernel.length / 2;
    int n = (count - 1) * factor + kernel.length;
    if (left.length < n) {
      left = new float[n];
      right = new float[n];
    }
    source.read(start * factor - half, n, left, right, 0);
    if (source.channels() == 2) {
      for (int i = 0; i < n; i++) {
        left[i] = 0.5f * (left[i] + right[i]);
      }
    }
    for (int i = 0; i < count; i++) {
      float sum = 0;
      int at = i * factor;
      for (int k = 0; k < kernel.length; k++) {
        sum += kernel[k] * left[at + k];
      }
      into[offset + i] = sum;
    }
  }
}

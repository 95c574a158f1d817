package hushrise.core.play;

import hushrise.core.Decibels;

/**
 * Lets a mix be heard as a person wants to listen to it. A change comes over 20 ms, so that it does
 * not click. While everything is plain the samples stay as they are, to the bit. For the rendering
 * thread; allocates nothing.
 */
final class Monitor {

  private static final double LOWEST_HZ = 200;
  private static final double HIGHEST_HZ = 6_000;
  private static final double CHANGE_SECONDS = 0.02;

  private final float[] narrow;
  private final Biquad[] filters;
  private final float step;
  private float level = 1;
  private float mono;
  private float small;

  Monitor(int sampleRate, int mostFrames) {
    narrow = new float[mostFrames];
    filters =
        new Biquad[] {
          Biquad.highPass(LOWEST_HZ, sampleRate),
          Biquad.highPass(LOWEST_HZ, sampleRate),
          Biquad.lowPass(HIGHEST_HZ, sampleRate),
          Biquad.lowPass(HIGHEST_HZ, sampleRate)
        };
    step = (float) (1 / (CHANGE_SECONDS * sampleRate));
  }

  void listen(Ears ears, float[] left, float[] right, int n) {
    float toLevel = (float) Decibels.levelToFactor(ears.levelDb());
    float toMono = ears.through() == Ears.Through.STEREO ? 0 : 1;
    float toSmall = ears.through() == Ears.Through.SMALL_SPEAKER ? 1 : 0;
    boolean plain = toLevel == 1 && toMono == 0 && toSmall == 0;
    if (plain && level == 1 && mono == 0 && small == 0) {
      return;
    }
    boolean filters = toSmall > 0 || small > 0;
    if (filters) {
      fillNarrow(left, right, n);
    }
    for (int i = 0; i < n; i++) {
      level = towards(level, toLevel);
      mono = towards(mono, toMono);
      small = towards(small, toSmall);
      float middle = (left[i] + right[i]) / 2;
      float l = left[i] + mono * (middle - left[i]);
      float r = right[i] + mono * (middle - right[i]);
      if (filters) {
        l += small * (narrow[i] - l);
        r += small * (narrow[i] - r);
      }
      left[i] = l * level;
      right[i] = r * level;
    }
  }

  private float towards(float at, float wanted) {
    return at < wanted ? Math.min(wanted, at + step) : Math.max(wanted, at - step);
  }

  private void fillNarrow(float[] left, float[] right, int n) {
    for (int i = 0; i < n; i++) {
      narrow[i] = (left[i] + right[i]) / 2;
    }
    for (Biquad filter : filters) {
      filter.filter(narrow, n);
    }
  }
}

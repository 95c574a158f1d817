package hushrise.core.project.timeline;

import hushrise.core.Decibels;

/** The curve of a fade: the amplitude factor over the fade's course from silence to full. */
public enum FadeShape {
  /** Sine quarter: two of them crossing keep the power steady. */
  EQUAL_POWER {
    @Override
    public double factorAt(double fraction) {
      return Math.sin(Math.PI / 2 * fraction);
    }
  },
  /** Raised cosine in amplitude: an S. */
  S {
    @Override
    public double factorAt(double fraction) {
      return 0.5 - 0.5 * Math.cos(Math.PI * fraction);
    }
  },
  /** Raised cosine in dB, from -60 dB: leaves silence and arrives gently. */
  SMOOTH {
    @Override
    public double factorAt(double fraction) {
      return fraction <= 0
          ? 0
          : Decibels.toFactor(Decibels.OFF_DB * (0.5 + 0.5 * Math.cos(Math.PI * fraction)));
    }
  },
  /** Straight in dB, from -60 dB. */
  STRAIGHT {
    @Override
    public double factorAt(double fraction) {
      return fraction <= 0 ? 0 : Decibels.toFactor(Decibels.OFF_DB * (1 - fraction));
    }
  };

  /**
   * The curve itself.
   *
   * @param fraction how much of the fade-in has passed, 0 to 1
   * @return the amplitude factor, 0 to 1
   */
  public abstract double factorAt(double fraction);
}

package hushrise.core.project.timeline;

/** How two overlapping clips of a track give way to one another. */
public enum CrossfadeShape {
  /** The power stays even: for different sounds. */
  EQUAL_POWER {
    @Override
    public double factorAt(double fraction) {
      return Math.sin(Math.PI / 2 * fraction);
    }
  },
  /** The amplitudes add up to one: for the same sound on both sides. */
  EQUAL_GAIN {
    @Override
    public double factorAt(double fraction) {
      return fraction;
    }
  };

  /**
   * The amplitude factor of the clip that comes in; the other one's is that of {@code 1 -
   * fraction}.
   *
   * @param fraction how much of the overlap has passed, 0 to 1
   */
  public abstract double factorAt(double fraction);
}

package hushrise.core.project.level;

/** How a level line goes from one keyframe to the next. */
public enum SegmentShape {
  /** Straight in dB. */
  STRAIGHT {
    @Override
    public double at(double fraction) {
      return fraction;
    }
  },
  /** Raised cosine in dB: leaves and arrives level. */
  SMOOTH {
    @Override
    public double at(double fraction) {
      return 0.5 - 0.5 * Math.cos(Math.PI * fraction);
    }
  },
  /** Stays, and steps at the next keyframe. */
  HOLD {
    @Override
    public double at(double fraction) {
      return fraction < 1 ? 0 : 1;
    }
  };

  /**
   * How far the level has come from the segment's first to its last value.
   *
   * @param fraction the part of the segment's time that has passed, 0 to 1
   * @return 0 (still at the first value) to 1 (at the last)
   */
  public abstract double at(double fraction);
}

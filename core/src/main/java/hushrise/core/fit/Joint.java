package hushrise.core.fit;

/**
 * A jump that could be made.
 *
 * @param fromFrame the media frame up to which the song plays
 * @param toFrame the media frame that goes on
 * @param cost what choosing it costs: 0 for nothing
 * @param apartDb how far both sides are apart, as {@link Echoes#distances}; {@link #UNKNOWN} for
 *     one that was not found but asked for
 */
record Joint(long fromFrame, long toFrame, double cost, double apartDb) {

  static final double UNKNOWN = Double.NaN;

  /** By how much it makes the song longer. */
  long gain() {
    return fromFrame - toFrame;
  }

  Joint withCost(double other) {
    return new Joint(fromFrame, toFrame, other, apartDb);
  }
}

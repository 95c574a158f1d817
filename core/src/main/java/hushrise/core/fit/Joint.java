package hushrise.core.fit;

/**
 * A jump that could be made.
 *
 * @param fromFrame the media frame up to which the song plays
 * @param toFrame the media frame that goes on
 * @param cost what it changes in sound: 0 for nothing
 */
record Joint(long fromFrame, long toFrame, double cost) {

  /** By how much it makes the song longer. */
  long gain() {
    return fromFrame - toFrame;
  }

  double score() {
    return Math.exp(-Joints.STEEPNESS * Math.max(0, cost));
  }
}

package hushrise.core.time;

/**
 * A picture's frame rate as an exact fraction of frames per second, such as 24000/1001.
 *
 * @param numerator frames, at least 1
 * @param denominator seconds, at least 1
 */
public record FrameRate(int numerator, int denominator) {

  /** What a project without a picture uses. */
  public static final FrameRate DEFAULT = new FrameRate(25, 1);

  /** The slowest and the fastest rate that is believed, in pictures a second. */
  public static final double SLOWEST = 0.001;

  public static final double FASTEST = 1000;

  public FrameRate {
    if (numerator < 1 || denominator < 1) {
      throw new IllegalArgumentException(
          "A frame rate must be positive: " + numerator + "/" + denominator);
    }
  }

  /** Whether pictures may come as slowly, or as fast: slides do, and what a camera takes. */
  public boolean isBelievable() {
    return perSecond() >= SLOWEST && perSecond() <= FASTEST;
  }

  /** The picture frame that is shown at a sample frame: the last one that began at or before it. */
  public long pictureFrameAt(long sampleFrame, int sampleRate) {
    return Math.floorDiv(
        Math.multiplyExact(sampleFrame, (long) numerator), (long) sampleRate * denominator);
  }

  /**
   * The first sample frame at which a picture frame is shown; the inverse of {@link
   * #pictureFrameAt}.
   */
  public long sampleFrameOf(long pictureFrame, int sampleRate) {
    return Math.ceilDiv(
        Math.multiplyExact(pictureFrame, (long) sampleRate * denominator), (long) numerator);
  }

  /** Frames per second as a decimal, for display only. */
  public double perSecond() {
    return (double) numerator / denominator;
  }

  /** The whole number of frames that timecode counts in a second, at least 1: 30 for 30000/1001. */
  public int nominal() {
    return (int) Math.max(1, Math.round(perSecond()));
  }

  /** Whether timecode at this rate drops numbers (SMPTE ST 12-1): 30000/1001 and 60000/1001. */
  public boolean dropsNumbers() {
    return denominator == 1001 && nominal() % 30 == 0;
  }
}

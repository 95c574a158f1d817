package hushrise.core.project.timeline;

/**
 * A fade at one end of a clip.
 *
 * @param lengthFrames how long, in sample frames; 0 is no fade
 * @param shape its curve
 * @param begunFrames how much of it has passed where the clip begins (or, for a fade-out, is still
 *     to come where the clip ends): more than 0 where a split went through the fade
 */
public record Fade(long lengthFrames, FadeShape shape, long begunFrames) {

  public static final Fade NONE = new Fade(0, FadeShape.EQUAL_POWER);

  public Fade {
    if (lengthFrames < 0 || begunFrames < 0) {
      throw new IllegalArgumentException("A fade cannot be shorter than nothing: " + lengthFrames);
    }
  }

  public Fade(long lengthFrames, FadeShape shape) {
    this(lengthFrames, shape, 0);
  }

  public static Fade ofLength(long lengthFrames) {
    return new Fade(lengthFrames, FadeShape.EQUAL_POWER);
  }

  /** A fade of another length that begins in silence. */
  public Fade withLength(long newLengthFrames) {
    return new Fade(newLengthFrames, shape);
  }

  public Fade withShape(FadeShape newShape) {
    return new Fade(lengthFrames, newShape, begunFrames);
  }

  /** This fade seen from a clip's end that lies {@code frames} further inside it. */
  public Fade begun(long frames) {
    return begunFrames + frames >= lengthFrames
        ? new Fade(0, shape)
        : new Fade(lengthFrames, shape, begunFrames + frames);
  }

  /** How much of the fade lies within the clip, in frames. */
  public long visibleFrames() {
    return lengthFrames - begunFrames;
  }

  /**
   * The amplitude factor at a distance from the faded end; 1 everywhere where there is no fade.
   *
   * @param distanceFrames frames between the clip's faded end and the place; 0 or less is silence
   *     unless the fade has begun before
   */
  public double factorAt(long distanceFrames) {
    long passed = distanceFrames + begunFrames;
    if (lengthFrames == 0 || passed >= lengthFrames) {
      return 1;
    }
    return passed <= 0 ? 0 : shape.factorAt(passed / (double) lengthFrames);
  }
}

package hushrise.core.project;

/**
 * A fade at one end of a clip.
 *
 * @param lengthFrames how long, in sample frames; 0 is no fade
 * @param shape its curve
 */
public record Fade(long lengthFrames, FadeShape shape) {

  public static final Fade NONE = new Fade(0, FadeShape.EQUAL_POWER);

  public Fade {
    if (lengthFrames < 0) {
      throw new IllegalArgumentException("A fade cannot be shorter than nothing: " + lengthFrames);
    }
  }

  public static Fade ofLength(long lengthFrames) {
    return new Fade(lengthFrames, FadeShape.EQUAL_POWER);
  }

  public Fade withLength(long newLengthFrames) {
    return new Fade(newLengthFrames, shape);
  }

  /**
   * The amplitude factor at a distance from the faded end; 1 everywhere where there is no fade.
   *
   * @param distanceFrames frames between the clip's faded end and the place; 0 or less is silence
   */
  public double factorAt(long distanceFrames) {
    if (lengthFrames == 0 || distanceFrames >= lengthFrames) {
      return 1;
    }
    return distanceFrames <= 0 ? 0 : shape.factorAt(distanceFrames / (double) lengthFrames);
  }
}

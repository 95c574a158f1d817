package hushrise.app.timeline;

/**
 * What maps time to pixels.
 *
 * @param startFrame the timeline frame at x = 0
 * @param framesPerPixel how many sample frames a pixel spans
 */
public record TimeAxis(double startFrame, double framesPerPixel) {

  /** The closest zoom: a sample frame is four pixels wide. */
  private static final double CLOSEST = 0.25;

  /** The film and the air after it, in lengths of the film. */
  private static final double AIR = 1.015;

  /** An axis that shows a whole film and a little air after it. */
  public static TimeAxis fitting(long lengthFrames, double width) {
    return new TimeAxis(0, Math.max(CLOSEST, lengthFrames * AIR / Math.max(1, width)));
  }

  public double xOf(double frame) {
    return (frame - startFrame) / framesPerPixel;
  }

  public long frameAt(double x) {
    return Math.round(startFrame + x * framesPerPixel);
  }

  /** Zoomed by a factor (under 1 is closer) so that what lies at {@code x} stays there. */
  public TimeAxis zoomed(double factor, double x, long lengthFrames, double width) {
    double widest = fitting(lengthFrames, width).framesPerPixel();
    double scale = Math.clamp(framesPerPixel * factor, CLOSEST, Math.max(CLOSEST, widest));
    double frame = startFrame + x * framesPerPixel;
    return new TimeAxis(frame - x * scale, scale).within(lengthFrames, width);
  }

  public TimeAxis scrolled(double pixels, long lengthFrames, double width) {
    return new TimeAxis(startFrame + pixels * framesPerPixel, framesPerPixel)
        .within(lengthFrames, width);
  }

  /** Moved as little as needed to show a frame, with a margin at the side it left by. */
  public TimeAxis showing(long frame, long lengthFrames, double width) {
    double x = xOf(frame);
    if (x >= 0 && x <= width) {
      return this;
    }
    return new TimeAxis(frame - width * 0.1 * framesPerPixel, framesPerPixel)
        .within(lengthFrames, width);
  }

  private TimeAxis within(long lengthFrames, double width) {
    double shown = width * framesPerPixel;
    double air = Math.min(lengthFrames * (AIR - 1), shown / 4);
    double last = Math.max(0, lengthFrames + air - shown);
    return new TimeAxis(Math.clamp(startFrame, 0, last), framesPerPixel);
  }
}

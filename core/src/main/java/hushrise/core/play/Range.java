package hushrise.core.play;

/**
 * Which part of the film is played.
 *
 * @param fromFrame where a loop goes on
 * @param toFrame where it ends
 * @param loops whether it then goes on at {@code fromFrame}, again and again
 */
public record Range(long fromFrame, long toFrame, boolean loops) {

  public Range {
    if (toFrame < fromFrame) {
      throw new IllegalArgumentException("No range: " + fromFrame + " to " + toFrame);
    }
    loops = loops && toFrame > fromFrame;
  }

  public static Range once(long fromFrame, long toFrame) {
    return new Range(fromFrame, Math.max(fromFrame, toFrame), false);
  }
}

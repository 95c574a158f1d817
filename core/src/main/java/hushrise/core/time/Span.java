package hushrise.core.time;

import java.util.stream.LongStream;

/**
 * A stretch of time in sample frames, {@code [startFrame, endFrame)}.
 *
 * @param startFrame the first frame inside
 * @param endFrame the first frame after; not before {@code startFrame}
 */
public record Span(long startFrame, long endFrame) {

  public Span {
    if (endFrame < startFrame) {
      throw new IllegalArgumentException(
          "A span cannot end before it starts: " + startFrame + ".." + endFrame);
    }
  }

  public static Span ofLength(long startFrame, long lengthFrames) {
    return new Span(startFrame, startFrame + lengthFrames);
  }

  public long lengthFrames() {
    return endFrame - startFrame;
  }

  public boolean contains(long frame) {
    return startFrame <= frame && frame < endFrame;
  }

  public boolean overlaps(Span other) {
    return startFrame < other.endFrame && other.startFrame < endFrame;
  }

  /** Both ends. */
  public LongStream edges() {
    return LongStream.of(startFrame, endFrame);
  }
}

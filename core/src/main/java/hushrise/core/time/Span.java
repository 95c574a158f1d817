package hushrise.core.time;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
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

  /** The span from the earlier start to the later end. */
  public Span around(Span other) {
    return new Span(Math.min(startFrame, other.startFrame), Math.max(endFrame, other.endFrame));
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

  /** Spans in order of time, those with a gap of at most {@code gapFrames} joined into one. */
  public static List<Span> joined(List<Span> spans, long gapFrames) {
    List<Span> ordered = new ArrayList<>(spans);
    ordered.sort(Comparator.comparingLong(Span::startFrame));
    List<Span> result = new ArrayList<>();
    for (Span span : ordered) {
      if (!result.isEmpty() && span.startFrame - result.getLast().endFrame <= gapFrames) {
        Span last = result.removeLast();
        result.add(new Span(last.startFrame, Math.max(last.endFrame, span.endFrame)));
      } else {
        result.add(span);
      }
    }
    return List.copyOf(result);
  }

  /** What lies between spans that are {@link #joined}, before the first and after the last. */
  public static List<Span> between(List<Span> joined, long endFrame) {
    List<Span> gaps = new ArrayList<>();
    long from = 0;
    for (Span span : joined) {
      gaps.add(new Span(from, Math.max(from, span.startFrame)));
      from = span.endFrame;
    }
    gaps.add(new Span(from, Math.max(from, endFrame)));
    return List.copyOf(gaps);
  }

  /** What is left of spans where others are not; both {@link #joined}. */
  public static List<Span> without(List<Span> joined, List<Span> others) {
    List<Span> left = new ArrayList<>();
    int next = 0;
    for (Span span : joined) {
      long from = span.startFrame;
      while (next < others.size() && others.get(next).startFrame < span.endFrame) {
        Span other = others.get(next);
        if (from < other.startFrame) {
          left.add(new Span(from, other.startFrame));
        }
        from = Math.max(from, other.endFrame);
        if (other.endFrame > span.endFrame) {
          break; // and reaches into the next one
        }
        next++;
      }
      if (from < span.endFrame) {
        left.add(new Span(from, span.endFrame));
      }
    }
    return List.copyOf(left);
  }

  /** Both ends. */
  public LongStream edges() {
    return LongStream.of(startFrame, endFrame);
  }
}

package hushrise.core.level;

import hushrise.core.Decibels;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import java.util.List;

/**
 * A stretch of time in which one line segment and the same hushes and rises are in force.
 *
 * <p>Of a segment it holds the first level and where it leads, so that asking for a level is a
 * little arithmetic and no search.
 */
final class Interval {

  private static final Keyframe LEVEL = new Keyframe(0, 0, SegmentShape.HOLD);

  private final double fromDb;
  private final double byDb;
  private final long fromFrame;
  private final double lengthFrames;
  private final Keyframe course;
  private final Hush.Knots[] hushes;
  private final Hush.Knots[] rises;
  private final boolean steady;

  /**
   * An interval.
   *
   * @param line the track's line
   * @param next the index of the line's first keyframe after the interval's first frame
   * @param first the interval's first frame
   * @param outer whether it lies before the first or after the last place where anything bends
   * @param hushes in force here
   * @param rises in force here
   */
  Interval(
      LevelLine line,
      int next,
      long first,
      boolean outer,
      Hush.Knots[] hushes,
      Hush.Knots[] rises) {
    List<Keyframe> keyframes = line.keyframes();
    boolean within = next > 0 && next < keyframes.size();
    Keyframe from = within ? keyframes.get(next - 1) : null;
    fromDb = within ? from.levelDb() : line.levelDbAt(first);
    byDb = within ? keyframes.get(next).levelDb() - fromDb : 0;
    fromFrame = within ? from.frame() : first;
    lengthFrames = within ? keyframes.get(next).frame() - fromFrame : 1;
    course = within ? from : LEVEL;
    this.hushes = hushes;
    this.rises = rises;
    boolean lineIsSteady = byDb == 0 || course.shape() == SegmentShape.HOLD;
    steady = outer || (lineIsSteady && areLevel(hushes, first) && areLevel(rises, first));
  }

  private static boolean areLevel(Hush.Knots[] spans, long frame) {
    for (Hush.Knots span : spans) {
      if (frame < span.floorStart() || frame >= span.floorEnd()) {
        return false;
      }
    }
    return true;
  }

  /** Whether the level is the same throughout. */
  boolean isSteady() {
    return steady;
  }

  /** Line, rises and hushes at a frame inside, in dB; minus infinity where the line is off. */
  double levelDbAt(long frame) {
    double lineDb =
        byDb == 0 ? fromDb : fromDb + course.courseAt((frame - fromFrame) / lengthFrames) * byDb;
    if (lineDb <= Decibels.OFF_DB) {
      return Double.NEGATIVE_INFINITY;
    }
    double deepest = 0;
    for (Hush.Knots hush : hushes) {
      deepest = Math.min(deepest, hush.levelDbAt(frame));
    }
    double highest = 0;
    for (Hush.Knots rise : rises) {
      highest = Math.max(highest, rise.levelDbAt(frame));
    }
    return lineDb + highest + deepest;
  }
}

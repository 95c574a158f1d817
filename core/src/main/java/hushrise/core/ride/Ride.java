package hushrise.core.ride;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.ride.Pass.Point;
import java.util.ArrayList;
import java.util.List;

/** Turns what a hand did into keyframes. */
public final class Ride {

  /** A stroke that ends as near as this to the line has come back to it. */
  private static final double BACK_DB = 0.01;

  private Ride() {}

  /**
   * A line with a pass written into it. Before the first touch and after the last one's end nothing
   * changes; a later stroke replaces what an earlier one wrote in the same place.
   *
   * <p>Where a stroke ends elsewhere than the line lies, the level goes back to the line in the
   * rule's time; where it is to stay and nothing was written further on, it stays for good.
   */
  public static LevelLine written(LevelLine line, Pass pass, RideRule rule, int sampleRate) {
    LevelLine result = line;
    for (List<Point> stroke : pass.strokes()) {
      result = written(result, stroke, rule, sampleRate);
    }
    return result;
  }

  private static LevelLine written(
      LevelLine line, List<Point> stroke, RideRule rule, int sampleRate) {
    long first = stroke.getFirst().frame();
    long last = stroke.getLast().frame();
    List<Keyframe> thin =
        Thinning.of(stroke, rule.toleranceDb()).stream()
            .map(p -> new Keyframe(p.frame(), p.levelDb(), SegmentShape.STRAIGHT))
            .toList();
    boolean isBack = Math.abs(stroke.getLast().levelDb() - line.levelDbAt(last)) < BACK_DB;
    boolean goesOn = line.keyframes().stream().anyMatch(k -> k.frame() > last);
    if (!isBack && !goesOn && !rule.glides()) {
      return joined(line.withPointAt(first), first, Long.MAX_VALUE, thin);
    }
    long until = isBack ? last : last + rule.glideFrames(sampleRate);
    LevelLine cut = line.withPointAt(first).withPointAt(until);
    return joined(cut, first, until, isBack ? thin.subList(0, thin.size() - 1) : thin);
  }

  /** A line with everything from one frame up to another replaced. */
  private static LevelLine joined(LevelLine line, long from, long to, List<Keyframe> between) {
    List<Keyframe> all = new ArrayList<>(between);
    line.keyframes().stream().filter(k -> k.frame() < from || k.frame() >= to).forEach(all::add);
    return LevelLine.of(all);
  }
}

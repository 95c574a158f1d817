package hushrise.core.ride;

import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Makes hushes of a ride: where a track's line dips over a passage, a hush takes the dip's place,
 * which follows the speech from then on, and the line runs straight from before the dip to after
 * it.
 *
 * <p>The floor is the line's middle value over the passage, the level around it that of the line
 * just before the fall and just after the recovery. Fall and recovery are taken from where the line
 * leaves the level around and where it reaches the floor, each within 1 dB. Passages close to one
 * another share a hush where the hand went down once for them. Where a hand did more under the
 * speech than a hush does, the line keeps the rest of it.
 */
public final class RideHushes {

  private static final double GAP_SECONDS = 1.5;
  private static final double AROUND_SECONDS = 4;
  private static final double LEAST_DB = 2;
  private static final double NEAR_DB = 1;
  private static final double STEP_SECONDS = 0.02;

  private RideHushes() {}

  /** A project in which hushes take the place of a track's dips; the same where there are none. */
  public static Project of(Project project, String trackId) {
    Track track = project.track(trackId).orElseThrow();
    List<Span> passages =
        passages(project, track.line()).stream()
            .filter(p -> track.hushes().stream().noneMatch(h -> h.passage().overlaps(p)))
            .toList();
    LevelLine line = track.line();
    List<Hush> hushes = new ArrayList<>(track.hushes());
    for (int i = 0; i < passages.size(); i++) {
      long earliest = i == 0 ? 0 : passages.get(i - 1).endFrame();
      long latest = i == passages.size() - 1 ? Long.MAX_VALUE : passages.get(i + 1).startFrame();
      Dip dip = Dip.at(project, track.line(), passages.get(i), earliest, latest);
      if (dip.depthDb() <= -LEAST_DB) {
        Hush hush = dip.hush(project);
        hushes.add(hush);
        line = without(line, dip, hush.knots(project.sampleRate()));
      }
    }
    LevelLine flat = line;
    return hushes.size() == track.hushes().size()
        ? project
        : project.withTrack(trackId, t -> t.withLine(flat).withHushes(hushes));
  }

  /** Where somebody speaks; passages close to one another are one where the ride is one dip. */
  private static List<Span> passages(Project project, LevelLine line) {
    long step = project.frames(STEP_SECONDS);
    List<Span> passages = new ArrayList<>();
    for (Span next : Passages.of(project)) {
      if (!passages.isEmpty() && isOneDip(project, line, passages.getLast(), next, step)) {
        passages.add(passages.removeLast().around(next));
      } else {
        passages.add(next);
      }
    }
    return passages;
  }

  private static boolean isOneDip(
      Project project, LevelLine line, Span before, Span after, long step) {
    double floorBefore = Dip.median(line, before, step);
    double floorAfter = Dip.median(line, after, step);
    long top = Dip.highest(line, before.endFrame(), after.startFrame(), step);
    return after.startFrame() - before.endFrame() <= project.frames(GAP_SECONDS)
        && Math.abs(floorBefore - floorAfter) <= LEAST_DB
        && line.levelDbAt(top) - Math.max(floorBefore, floorAfter) <= LEAST_DB;
  }

  private static LevelLine without(LevelLine line, Dip dip, Hush.Knots hush) {
    List<Keyframe> all = new ArrayList<>(rest(line, dip, hush));
    for (Keyframe k : line.withPointAt(dip.start()).withPointAt(dip.end()).keyframes()) {
      if (k.frame() < dip.start() || k.frame() > dip.end()) {
        all.add(k);
      }
    }
    all.add(new Keyframe(dip.start(), dip.beforeDb(), SegmentShape.STRAIGHT));
    if (dip.end() > dip.start()) {
      SegmentShape goesOn =
          line.withPointAt(dip.end()).at(dip.end()).map(Keyframe::shape).orElseThrow();
      all.add(new Keyframe(dip.end(), dip.afterDb(), goesOn));
    }
    return LevelLine.of(all);
  }

  /**
   * What a hand did in a dip besides what the hush does: keyframes, none where it is at most {@link
   * #LEAST_DB}.
   */
  private static List<Keyframe> rest(LevelLine line, Dip dip, Hush.Knots hush) {
    List<Keyframe> left = new ArrayList<>();
    double most = 0;
    LevelLine corners = line.withPointAt(dip.floorStart()).withPointAt(dip.floorEnd());
    for (Keyframe k : corners.within(dip.start() + 1, dip.end() - 1)) {
      double base = dip.aroundDb(k.frame());
      double db = k.levelDb() - hush.levelDbAt(k.frame());
      most = Math.max(most, Math.abs(db - base));
      left.add(k.withLevelDb(db));
    }
    return most > LEAST_DB ? left : List.of();
  }

  /**
   * A dip of a line over a passage.
   *
   * @param start where the line leaves the level before
   * @param floorStart where it has reached the floor
   * @param floorEnd where it leaves it
   * @param end where it is back
   */
  private record Dip(
      Span passage,
      long start,
      long floorStart,
      long floorEnd,
      long end,
      double beforeDb,
      double afterDb,
      double floorDb) {

    static Dip at(Project project, LevelLine line, Span passage, long earliest, long latest) {
      long step = project.frames(STEP_SECONDS);
      long around = project.frames(AROUND_SECONDS);
      double floor = median(line, passage, step);
      long from = Math.max(earliest, passage.startFrame() - around);
      long to = Math.min(latest, passage.endFrame() + around);
      long start = highest(line, passage.startFrame(), from, -step);
      long end = highest(line, passage.endFrame(), to, step);
      double before = line.levelDbAt(start);
      double after = line.levelDbAt(end);
      start = last(line, start, passage.startFrame() + around / 4, step, before);
      end = last(line, end, passage.endFrame() - around / 4, -step, after);
      long floorStart = first(line, start, passage.endFrame(), step, floor);
      long floorEnd = first(line, end, passage.startFrame(), -step, floor);
      return new Dip(
          passage,
          start,
          Math.min(floorStart, floorEnd),
          Math.max(floorStart, floorEnd),
          end,
          before,
          after,
          floor);
    }

    private static double median(LevelLine line, Span span, long step) {
      int count = (int) Math.max(1, span.lengthFrames() / step);
      double[] levels = new double[count];
      for (int i = 0; i < count; i++) {
        levels[i] = line.levelDbAt(span.startFrame() + i * step);
      }
      Arrays.sort(levels);
      return levels[count / 2];
    }

    /** The nearest place of the highest level on the way. */
    private static long highest(LevelLine line, long from, long to, long step) {
      long best = from;
      for (long at = from; step < 0 ? at >= to : at <= to; at += step) {
        if (line.levelDbAt(at) > line.levelDbAt(best) + 0.05) {
          best = at;
        }
      }
      return best;
    }

    /** The last place on the way that is still near a level. */
    private static long last(LevelLine line, long from, long to, long step, double db) {
      long at = from;
      while ((step > 0 ? at + step < to : at + step > to)
          && Math.abs(line.levelDbAt(at + step) - db) < NEAR_DB) {
        at += step;
      }
      return at;
    }

    /** The first place on the way that is near a level. */
    private static long first(LevelLine line, long from, long to, long step, double db) {
      long at = from;
      while ((step > 0 ? at + step < to : at + step > to)
          && Math.abs(line.levelDbAt(at) - db) > NEAR_DB) {
        at += step;
      }
      return at;
    }

    /** The level around it, which runs straight from before to after. */
    double aroundDb(long frame) {
      return beforeDb + (afterDb - beforeDb) * (frame - start) / (end - start);
    }

    double depthDb() {
      return floorDb - Math.min(beforeDb, afterDb);
    }

    Hush hush(Project project) {
      Turn turn =
          new Turn(
              project.seconds(passage.startFrame() - floorStart),
              Math.max(0.02, project.seconds(floorStart - start)),
              project.seconds(floorEnd - passage.endFrame()),
              Math.max(0.02, project.seconds(end - floorEnd)));
      return Hush.over(passage, Math.max(-60, floorDb - (beforeDb + afterDb) / 2)).withTurn(turn);
    }
  }
}

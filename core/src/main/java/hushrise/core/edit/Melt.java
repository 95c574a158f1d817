package hushrise.core.edit;

import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.DoubleBinaryOperator;
import java.util.function.LongToDoubleFunction;
import java.util.stream.LongStream;
import java.util.stream.Stream;

/**
 * Turns hushes or rises into keyframes of the line that give the same level to within {@link
 * #TOLERANCE_DB}.
 *
 * <p>Between two places where the sum bends it is tried as one segment: hold, straight, then
 * smooth; where none fits, the stretch is halved. On a level line a hush becomes its four corners
 * exactly, as a smooth segment has a hush's shape. Where the line steps, or a hush falls at once, a
 * keyframe one frame before keeps the value up to the step.
 */
final class Melt {

  private static final double TOLERANCE_DB = 0.004;
  private static final int PROBES = 24;
  private static final long SHORTEST = 1;

  private final LongToDoubleFunction level;
  private final TreeMap<Long, Keyframe> keyframes = new TreeMap<>();

  private Melt(LongToDoubleFunction level) {
    this.level = level;
  }

  static Track hush(Track track, Hush hush, int sampleRate) {
    List<Hush> melting = meeting(track, hush, sampleRate);
    Hush.Knots[] knots = inOrder(melting.stream().map(h -> h.knots(sampleRate)));
    LevelLine line = melted(track.line(), furthest(knots, Math::min), knots);
    Set<Hush> gone = Set.copyOf(melting);
    List<Hush> left = track.hushes().stream().filter(h -> !gone.contains(h)).toList();
    return track.withLine(line).withHushes(left);
  }

  /** A track's hush with all those that meet it, or one that does. */
  private static List<Hush> meeting(Track track, Hush hush, int sampleRate) {
    List<Hush> ordered = new ArrayList<>(track.hushes());
    ordered.sort(Comparator.comparingLong(h -> h.knots(sampleRate).start()));
    List<Hush> group = new ArrayList<>();
    long end = 0;
    for (Hush next : ordered) {
      Hush.Knots knots = next.knots(sampleRate);
      if (knots.start() >= end) {
        if (group.contains(hush)) {
          return group;
        }
        group = new ArrayList<>();
      }
      group.add(next);
      end = Math.max(end, knots.end());
    }
    return group;
  }

  static Track rise(Track track, Rise rise, int sampleRate) {
    List<Rise> melting =
        track.rises().stream().filter(r -> r.span().overlaps(rise.span())).toList();
    Hush.Knots[] knots = inOrder(melting.stream().map(r -> r.knots(sampleRate)));
    LevelLine line = melted(track.line(), furthest(knots, Math::max), knots);
    List<Rise> left = track.rises().stream().filter(r -> !melting.contains(r)).toList();
    return track.withLine(line).withRises(left);
  }

  private static Hush.Knots[] inOrder(Stream<Hush.Knots> knots) {
    return knots.sorted(Comparator.comparingLong(Hush.Knots::start)).toArray(Hush.Knots[]::new);
  }

  /**
   * The level of those that lie over a time together: 0 dB or the one furthest from it.
   *
   * @param knots in order of their starts
   */
  private static LongToDoubleFunction furthest(Hush.Knots[] knots, DoubleBinaryOperator further) {
    long[] until = new long[knots.length]; // when the last one so far ends
    Arrays.setAll(until, i -> Math.max(knots[i].end(), i == 0 ? 0 : until[i - 1]));
    return frame -> {
      int at = Arrays.binarySearch(until, frame);
      double db = 0;
      for (int i = at < 0 ? -at - 1 : at; i < knots.length && knots[i].start() <= frame; i++) {
        db = further.applyAsDouble(db, knots[i].levelDbAt(frame));
      }
      return db;
    };
  }

  private static LevelLine melted(LevelLine line, LongToDoubleFunction added, Hush.Knots[] knots) {
    long start = Long.MAX_VALUE;
    long end = Long.MIN_VALUE;
    for (Hush.Knots k : knots) {
      start = Math.min(start, k.start());
      end = Math.max(end, k.end());
    }
    boolean startsAtOnce = start > 0 && Math.abs(added.applyAsDouble(start)) > TOLERANCE_DB;
    long from = Math.max(0, startsAtOnce ? start - 1 : start);
    long to = Math.max(from + 1, end);
    Melt melt = new Melt(frame -> line.levelDbAt(frame) + added.applyAsDouble(frame));
    long[] bends = bends(line, knots, from, to);
    for (int i = 0; i + 1 < bends.length; i++) {
      melt.piece(bends[i], bends[i + 1]);
    }
    LevelLine cut = line.withPointAt(from).withPointAt(to);
    List<Keyframe> all = new ArrayList<>();
    cut.keyframes().stream().filter(k -> k.frame() < from).forEach(all::add);
    all.addAll(melt.keyframes.values());
    cut.keyframes().stream().filter(k -> k.frame() >= to).forEach(all::add);
    return LevelLine.of(all);
  }

  private static long[] bends(LevelLine line, Hush.Knots[] knots, long from, long to) {
    LongStream.Builder places = LongStream.builder().add(from).add(to);
    line.keyframes().forEach(k -> places.add(k.frame()));
    for (Hush.Knots k : knots) {
      places.add(k.start()).add(k.floorStart()).add(k.floorEnd()).add(k.end());
    }
    return places.build().filter(f -> f >= from && f <= to).sorted().distinct().toArray();
  }

  /** Lays keyframes over a stretch without bends; the one at its end belongs to the next. */
  private void piece(long from, long to) {
    double first = level.applyAsDouble(from);
    if (to - from > 1) {
      double last = level.applyAsDouble(to - 1);
      double next = level.applyAsDouble(to);
      boolean steps = Math.abs(next - last) > 0.05 && Math.abs(next - last) > 4 * slope(to);
      if (steps) {
        within(from, to - 1);
        keyframes.put(to - 1, new Keyframe(to - 1, last, SegmentShape.HOLD));
        return;
      }
    }
    if (to - from <= 1) {
      keyframes.put(from, new Keyframe(from, first, SegmentShape.HOLD));
      return;
    }
    within(from, to);
  }

  /** How far the level moves in the frame before a place's last one. */
  private double slope(long to) {
    return Math.abs(level.applyAsDouble(to - 1) - level.applyAsDouble(to - 2));
  }

  private void within(long from, long to) {
    for (SegmentShape shape : new SegmentShape[] {SegmentShape.STRAIGHT, SegmentShape.SMOOTH}) {
      if (to - from <= SHORTEST || fits(shape, from, to)) {
        keyframes.put(from, new Keyframe(from, level.applyAsDouble(from), shape));
        return;
      }
    }
    long middle = (from + to) / 2;
    within(from, middle);
    within(middle, to);
  }

  private boolean fits(SegmentShape shape, long from, long to) {
    for (int i = 1; i < PROBES; i++) {
      if (!fits(shape, from, to, from + (to - from) * i / PROBES)) {
        return false;
      }
    }
    // Two hushes may cross a few frames from an end, between the probes.
    return fits(shape, from, to, from + 1) && fits(shape, from, to, to - 1);
  }

  private boolean fits(SegmentShape shape, long from, long to, long frame) {
    double first = level.applyAsDouble(from);
    double last = level.applyAsDouble(to);
    double fraction = (frame - from) / (double) (to - from);
    double there = first + shape.at(fraction) * (last - first);
    return Math.abs(there - level.applyAsDouble(frame)) <= TOLERANCE_DB;
  }
}

package hushrise.core.level;

import hushrise.core.project.level.Hush;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.TreeSet;

/**
 * Which hushes, or which rises, count in each interval between knots. Of those that lie on their
 * floor all through it only the one that reaches furthest does, and of those that fall or recover
 * only the ones that may reach further than it; so thousands over one another cost little. Those
 * that lie apart from all others, as most do, cost next to nothing.
 */
final class Reach {

  private static final Hush.Knots[] NONE = {};

  private final Hush.Knots[] spans;
  private final TreeSet<Integer> onFloor;
  private final TreeSet<Integer> turning;

  private Reach(Hush.Knots[] spans) {
    this.spans = spans;
    Comparator<Integer> furthestFirst =
        Comparator.<Integer>comparingDouble(i -> -Math.abs(spans[i].depthDb()))
            .thenComparing(Comparator.naturalOrder());
    onFloor = new TreeSet<>(furthestFirst);
    turning = new TreeSet<>(furthestFirst);
  }

  /**
   * The spans that count in each interval.
   *
   * @param knots where anything bends, in order; those of the spans are among them
   * @param spans all of one sign
   * @return one entry more than knots: the first interval lies before the first knot
   */
  static Hush.Knots[][] of(long[] knots, Hush.Knots[] spans) {
    Hush.Knots[][] counting = new Hush.Knots[knots.length + 1][];
    Arrays.fill(counting, NONE);
    Hush.Knots[] inOrder = spans.clone();
    Arrays.sort(inOrder, Comparator.comparingLong(Hush.Knots::start));
    int first = 0;
    while (first < inOrder.length) {
      int next = first + 1;
      long end = inOrder[first].end();
      while (next < inOrder.length && inOrder[next].start() < end) {
        end = Math.max(end, inOrder[next].end());
        next++;
      }
      Hush.Knots[] together = Arrays.copyOfRange(inOrder, first, next);
      int from = Arrays.binarySearch(knots, together[0].start());
      int to = Arrays.binarySearch(knots, end);
      if (together.length == 1) {
        Arrays.fill(counting, from + 1, to + 1, together);
      } else {
        new Reach(together).fill(knots, from, to, counting);
      }
      first = next;
    }
    return counting;
  }

  /** A place where a span begins, ends, or comes to or from its floor. */
  private record Bend(long frame, int span) {}

  /** Fills in what counts after each of the knots {@code from} (inclusive) to {@code to}. */
  private void fill(long[] knots, int from, int to, Hush.Knots[][] counting) {
    List<Bend> bends = new ArrayList<>(4 * spans.length);
    for (int i = 0; i < spans.length; i++) {
      Hush.Knots span = spans[i];
      for (long frame : new long[] {span.start(), span.floorStart(), span.floorEnd(), span.end()}) {
        bends.add(new Bend(frame, i));
      }
    }
    bends.sort(Comparator.comparingLong(Bend::frame));
    int next = 0;
    for (int knot = from; knot < to; knot++) {
      while (next < bends.size() && bends.get(next).frame() <= knots[knot]) {
        place(bends.get(next++).span(), knots[knot]);
      }
      counting[knot + 1] = counting();
    }
  }

  /** Puts a span where it belongs from a frame on. */
  private void place(int index, long frame) {
    Hush.Knots span = spans[index];
    onFloor.remove(index);
    turning.remove(index);
    if (frame >= span.start() && frame < span.end()) {
      boolean floor = frame >= span.floorStart() && frame < span.floorEnd();
      (floor ? onFloor : turning).add(index);
    }
  }

  private Hush.Knots[] counting() {
    if (onFloor.isEmpty() && turning.isEmpty()) {
      return NONE;
    }
    List<Hush.Knots> found = new ArrayList<>(2);
    double floor = 0;
    if (!onFloor.isEmpty()) {
      Hush.Knots furthest = spans[onFloor.first()];
      found.add(furthest);
      floor = Math.abs(furthest.depthDb());
    }
    for (int index : turning) {
      if (Math.abs(spans[index].depthDb()) <= floor) {
        break;
      }
      found.add(spans[index]);
    }
    return found.toArray(Hush.Knots[]::new);
  }
}

package hushrise.core.ride;

import hushrise.core.ride.Pass.Point;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;

/**
 * The fewest of a stroke's points whose straight joins stay within a tolerance of all the others.
 *
 * <p>From a point, the joins that pass all points so far within the tolerance make a wedge of
 * slopes that only narrows; a later point can be joined when its own slope lies in it. The fewest
 * joins from the first point to the last are the shortest way through that graph (Imai and Iri,
 * <i>Polygonal Approximations of a Curve</i>, 1988). Distances are in dB at the same time, not
 * across; so, unlike dropping points by their distance from a chord (Ramer 1972, Douglas and
 * Peucker 1973), it needs no more points than any choice of them could.
 */
public final class Thinning {

  /** Longer strokes are thinned in parts of so many points, one after another. */
  private static final int PART = 20_000;

  private Thinning() {}

  /**
   * Thins a stroke.
   *
   * @param points in order of time, never two at one frame
   * @param toleranceDb at least 0
   * @return some of the points, the first and the last among them
   */
  public static List<Point> of(List<Point> points, double toleranceDb) {
    List<Point> result = new ArrayList<>();
    for (int from = 0; from < points.size() - 1; from += PART) {
      List<Point> part = points.subList(from, Math.min(points.size(), from + PART + 1));
      List<Point> thin = fewest(part, toleranceDb);
      result.addAll(result.isEmpty() ? thin : thin.subList(1, thin.size()));
    }
    return result.isEmpty() ? List.copyOf(points) : result;
  }

  private static List<Point> fewest(List<Point> points, double toleranceDb) {
    int count = points.size();
    int[] joins = new int[count];
    int[] before = new int[count];
    Arrays.fill(joins, Integer.MAX_VALUE);
    joins[0] = 0;
    for (int i = 0; i < count - 1; i++) {
      Point from = points.get(i);
      double lowest = Double.NEGATIVE_INFINITY;
      double highest = Double.POSITIVE_INFINITY;
      for (int k = i + 1; k < count && lowest <= highest; k++) {
        double length = points.get(k).frame() - from.frame();
        double rise = points.get(k).levelDb() - from.levelDb();
        double slope = rise / length;
        if (slope >= lowest && slope <= highest && joins[i] + 1 < joins[k]) {
          joins[k] = joins[i] + 1;
          before[k] = i;
        }
        lowest = Math.max(lowest, (rise - toleranceDb) / length);
        highest = Math.min(highest, (rise + toleranceDb) / length);
      }
    }
    List<Point> kept = new ArrayList<>();
    for (int at = count - 1; at > 0; at = before[at]) {
      kept.add(points.get(at));
    }
    kept.add(points.getFirst());
    Collections.reverse(kept);
    return kept;
  }
}

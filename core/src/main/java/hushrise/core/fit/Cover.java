package hushrise.core.fit;

import hushrise.core.time.Span;
import java.util.List;

/** Where somebody speaks over music, so that it is down and a seam in it is heard less. */
final class Cover {

  /** What a seam that is covered costs against one in the open. */
  private static final double SHARE = 0.4;

  private final long[] starts;
  private final long[] ends;

  /**
   * @param spans that do not overlap, in order of time
   */
  Cover(List<Span> spans) {
    starts = spans.stream().mapToLong(Span::startFrame).toArray();
    ends = spans.stream().mapToLong(Span::endFrame).toArray();
  }

  boolean covers(long frame) {
    int low = 0;
    int high = starts.length;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (starts[middle] <= frame) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low > 0 && frame < ends[low - 1];
  }

  /** A jump's cost at a time. */
  double costAt(long frame, double cost) {
    return cost > 0 && starts.length > 0 && covers(frame) ? SHARE * cost : cost;
  }
}

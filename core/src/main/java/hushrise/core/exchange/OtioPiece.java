package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;

/**
 * A stretch of a timeline on which a file is heard or seen. All times in sample frames.
 *
 * @param clip the node it comes from
 * @param media what is heard or seen
 * @param start where it starts
 * @param length how long it is, more than 0
 * @param mediaStart where in its media it starts
 * @param fadeIn how long it comes up
 * @param fadeOut how long it goes down
 */
@RecordBuilder
record OtioPiece(
    JsonNode clip,
    Media media,
    double start,
    double length,
    double mediaStart,
    double fadeIn,
    double fadeOut)
    implements OtioPieceBuilder.With {

  double end() {
    return start + length;
  }

  private boolean isStill() {
    return media.kind() == MediaKind.STILL;
  }

  OtioPiece movedBy(double frames) {
    return withStart(start + frames);
  }

  /** What of it lies in a stretch of time; a fade that is cut away is gone. */
  Optional<OtioPiece> within(double from, double to) {
    double first = Math.max(start, from);
    double last = Math.min(end(), to);
    if (last - first < 1) {
      return Optional.empty();
    }
    return Optional.of(
        with(
            p ->
                p.start(first)
                    .length(last - first)
                    .mediaStart(isStill() ? 0 : mediaStart + first - start)
                    .fadeIn(first > start ? 0 : fadeIn)
                    .fadeOut(last < end() ? 0 : fadeOut)));
  }

  /** This one beginning earlier, as far as its media and the timeline go back. */
  OtioPiece earlier(double frames) {
    double by = Math.min(frames, Math.min(start, isStill() ? frames : mediaStart));
    return with(
        p -> p.start(start - by).length(length + by).mediaStart(isStill() ? 0 : mediaStart - by));
  }

  /** This one ending later, as far as its media goes on. */
  OtioPiece longer(double frames) {
    double left = isStill() ? frames : media.lengthFrames() - mediaStart - length;
    return withLength(length + Math.max(0, Math.min(frames, left)));
  }

  /**
   * What is seen of layers that lie over one another.
   *
   * @param layers the uppermost last
   * @return in order of time and apart
   */
  static List<OtioPiece> seenFromAbove(List<List<OtioPiece>> layers) {
    List<OtioPiece> seen = new ArrayList<>();
    NavigableMap<Double, Double> covered = new TreeMap<>(); // ends by starts, apart
    for (List<OtioPiece> layer : layers.reversed()) {
      for (OtioPiece piece : layer.reversed()) {
        piece.addUncovered(covered, seen);
        cover(piece, covered);
      }
    }
    seen.sort(Comparator.comparingDouble(OtioPiece::start));
    return seen;
  }

  private void addUncovered(NavigableMap<Double, Double> covered, List<OtioPiece> into) {
    Map.Entry<Double, Double> before = covered.floorEntry(start);
    double from = before == null ? start : Math.max(start, before.getValue());
    for (Map.Entry<Double, Double> over : covered.tailMap(start, false).entrySet()) {
      if (over.getKey() >= end()) {
        break;
      }
      within(from, over.getKey()).ifPresent(into::add);
      from = over.getValue();
    }
    within(from, end()).ifPresent(into::add);
  }

  private static void cover(OtioPiece piece, NavigableMap<Double, Double> covered) {
    double from = piece.start();
    double to = piece.end();
    for (Map.Entry<Double, Double> at = covered.floorEntry(to);
        at != null && at.getValue() >= from;
        at = covered.floorEntry(to)) {
      from = Math.min(from, at.getKey());
      to = Math.max(to, at.getValue());
      covered.remove(at.getKey());
    }
    covered.put(from, to);
  }
}

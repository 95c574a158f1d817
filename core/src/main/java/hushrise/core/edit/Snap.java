package hushrise.core.edit;

import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import java.util.Collection;
import java.util.NavigableSet;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.LongStream;

/**
 * The places that draw what is dragged near them: clip ends, the playhead, markers, passages, and
 * the picture's cuts.
 */
public final class Snap {

  private final NavigableSet<Long> places = new TreeSet<>();

  private Snap() {}

  /**
   * Collects the places of a project.
   *
   * @param moving clips that are being dragged, whose own ends do not count
   * @param cuts further places, such as the picture's cuts
   */
  public static Snap of(
      Project project, Set<String> moving, long playheadFrame, Collection<Long> cuts) {
    Snap snap = new Snap();
    snap.places.add(0L);
    snap.places.add(playheadFrame);
    snap.places.addAll(cuts);
    project.pictureEndFrame().ifPresent(snap.places::add);
    for (Marker marker : project.markers()) {
      snap.places.add(marker.frame());
    }
    for (Track track : project.tracks()) {
      for (Clip clip : track.clips()) {
        if (!moving.contains(clip.id())) {
          snap.places.add(clip.startFrame());
          snap.places.add(clip.endFrame());
        }
      }
    }
    if (moving.isEmpty()) {
      Passages.of(project)
          .forEach(
              p -> {
                snap.places.add(p.startFrame());
                snap.places.add(p.endFrame());
              });
    }
    return snap;
  }

  /** The place nearest to a time, if one is within reach. */
  public OptionalLong nearest(long frame, long reachFrames) {
    Long below = places.floor(frame);
    Long above = places.ceiling(frame);
    long toBelow = below == null ? Long.MAX_VALUE : frame - below;
    long toAbove = above == null ? Long.MAX_VALUE : above - frame;
    long nearest = Math.min(toBelow, toAbove);
    if (nearest > reachFrames) {
      return OptionalLong.empty();
    }
    return OptionalLong.of(toBelow <= toAbove ? frame - toBelow : frame + toAbove);
  }

  /** Where a drag lands, and the place that drew it. */
  public record Landing(long byFrames, OptionalLong place) {}

  /** A shift by which one of some edges falls on a place, if one is within reach; else as asked. */
  public Landing landing(LongStream edges, long byFrames, long reachFrames) {
    Landing best = new Landing(byFrames, OptionalLong.empty());
    long closest = reachFrames + 1;
    for (long edge : edges.toArray()) {
      OptionalLong place = nearest(edge + byFrames, reachFrames);
      if (place.isPresent() && Math.abs(place.getAsLong() - edge - byFrames) < closest) {
        closest = Math.abs(place.getAsLong() - edge - byFrames);
        best = new Landing(place.getAsLong() - edge, place);
      }
    }
    return best;
  }

  /** The next place after a time. */
  public OptionalLong after(long frame) {
    Long next = places.higher(frame);
    return next == null ? OptionalLong.empty() : OptionalLong.of(next);
  }

  /** The last place before a time. */
  public OptionalLong before(long frame) {
    Long last = places.lower(frame);
    return last == null ? OptionalLong.empty() : OptionalLong.of(last);
  }
}

package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.ToLongFunction;

/** Removes clips, and closes what they leave empty. */
public final class ClipRemoval {

  private ClipRemoval() {}

  /**
   * Removes clips, and the keyframes over them when those travel with clips.
   *
   * @param closesGap whether what comes later on the same track moves up
   */
  public static Project delete(
      Project project, Set<String> clipIds, boolean closesGap, boolean carriesKeyframes) {
    return project.withEachTrack(
        track -> {
          List<Clip> going = ClipEdits.chosenOn(track, clipIds);
          if (going.isEmpty()) {
            return track;
          }
          Track left =
              track.withClips(
                  track.clips().stream().filter(c -> !clipIds.contains(c.id())).toList());
          if (carriesKeyframes) {
            left = left.withLine(Travel.without(track.line(), Travel.over(track.line(), going)));
          }
          return closesGap ? closed(left, track, carriesKeyframes) : left;
        });
  }

  /** Moves what comes later on a track up by what removed clips have left empty before it. */
  private static Track closed(Track left, Track before, boolean carriesKeyframes) {
    List<Span> empty = Span.without(joinedSpans(before.clips()), joinedSpans(left.clips()));
    TreeMap<Long, Long> emptyUntil = new TreeMap<>(Map.of(0L, 0L));
    empty.forEach(
        s -> emptyUntil.put(s.endFrame(), emptyUntil.lastEntry().getValue() + s.lengthFrames()));
    ToLongFunction<Clip> by = c -> -emptyUntil.floorEntry(c.startFrame()).getValue();
    List<Clip> later = left.clips().stream().filter(c -> by.applyAsLong(c) < 0).toList();
    return ClipEdits.moved(left, later, by, carriesKeyframes);
  }

  private static List<Span> joinedSpans(List<Clip> clips) {
    return Span.joined(clips.stream().map(Clip::span).toList(), 0);
  }
}

package hushrise.core.edit;

import hushrise.core.project.Clip;
import hushrise.core.project.Hush;
import hushrise.core.project.Keyframe;
import hushrise.core.project.LevelLine;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * What goes along when clips move: the keyframes over them, and the hushes under the speech in
 * them.
 */
final class Travel {

  private Travel() {}

  /** The keyframes of a line that lie over clips. */
  static List<Keyframe> over(LevelLine line, Collection<Clip> clips) {
    return line.keyframes().stream()
        .filter(k -> clips.stream().anyMatch(c -> c.span().contains(k.frame())))
        .toList();
  }

  /** A line without some of its keyframes. */
  static LevelLine without(LevelLine line, Collection<Keyframe> keyframes) {
    if (keyframes.isEmpty()) {
      return line;
    }
    return LevelLine.of(line.keyframes().stream().filter(k -> !keyframes.contains(k)).toList());
  }

  /** A line with keyframes added, moved in time; one that lies at the same instant gives way. */
  static LevelLine with(LevelLine line, Collection<Keyframe> keyframes, long byFrames) {
    if (keyframes.isEmpty()) {
      return line;
    }
    TreeMap<Long, Keyframe> all =
        line.keyframes().stream()
            .collect(Collectors.toMap(Keyframe::frame, k -> k, (a, b) -> b, TreeMap::new));
    for (Keyframe k : keyframes) {
      long frame = Math.max(0, k.frame() + byFrames);
      all.put(frame, k.withFrame(frame));
    }
    return LevelLine.of(new ArrayList<>(all.values()));
  }

  /** The project with the hushes under moved narration moved along. */
  static Project hushesWith(Project project, Map<Clip, TrackKind> moved, long byFrames) {
    List<Span> speech = spansOfVoices(moved);
    return speech.isEmpty() || byFrames == 0
        ? project
        : project.withEachTrack(
            t ->
                t.hushes().stream().noneMatch(h -> isUnder(h, speech))
                    ? t
                    : t.withHushes(
                        t.hushes().stream()
                            .map(h -> isUnder(h, speech) ? h.movedBy(byFrames) : h)
                            .toList()));
  }

  /** The project without the hushes that lay under removed narration alone. */
  static Project withoutHushesOf(Project project, Map<Clip, TrackKind> removed) {
    List<Span> speech = spansOfVoices(removed);
    List<Span> remaining =
        project.tracksOf(TrackKind.VOICE).flatMap(t -> t.clips().stream()).map(Clip::span).toList();
    return speech.isEmpty()
        ? project
        : project.withEachTrack(t -> withoutHushes(t, speech, remaining));
  }

  private static Track withoutHushes(Track track, List<Span> speech, List<Span> remaining) {
    List<Hush> left =
        track.hushes().stream()
            .filter(h -> !isUnder(h, speech) || remaining.stream().anyMatch(h.passage()::overlaps))
            .toList();
    return left.size() == track.hushes().size() ? track : track.withHushes(left);
  }

  private static List<Span> spansOfVoices(Map<Clip, TrackKind> clips) {
    return clips.entrySet().stream()
        .filter(e -> e.getValue() == TrackKind.VOICE)
        .map(e -> e.getKey().span())
        .toList();
  }

  private static boolean isUnder(Hush hush, List<Span> speech) {
    long middle = (hush.startFrame() + hush.endFrame()) / 2;
    return speech.stream().anyMatch(s -> s.contains(middle));
  }
}

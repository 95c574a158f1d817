package hushrise.core.edit;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.ToLongFunction;
import java.util.stream.Collectors;

/** What goes along when clips move: the keyframes over them. */
final class Travel {

  private Travel() {}

  /** The keyframes of a line that lie over clips, in order of time. */
  static List<Keyframe> over(LevelLine line, Collection<Clip> clips) {
    List<Span> spans = Span.joined(clips.stream().map(Clip::span).toList(), 0);
    return spans.stream().flatMap(s -> over(line, s).stream()).toList();
  }

  private static List<Keyframe> over(LevelLine line, Span span) {
    return line.within(span.startFrame(), span.endFrame() - 1);
  }

  /** A line without some of its keyframes; those that are left go on as they did. */
  static LevelLine without(LevelLine line, Collection<Keyframe> keyframes) {
    if (keyframes.isEmpty()) {
      return line;
    }
    Set<Long> frames = keyframes.stream().map(Keyframe::frame).collect(Collectors.toSet());
    return LevelLine.of(
        line.keyframes().stream().filter(k -> !frames.contains(k.frame())).toList());
  }

  /** A line with keyframes added, moved in time; one that lies at the same instant gives way. */
  static LevelLine with(LevelLine line, Collection<Keyframe> keyframes, long byFrames) {
    return with(line, keyframes.stream().map(k -> moved(k, byFrames)).toList());
  }

  private static LevelLine with(LevelLine line, Collection<Keyframe> more) {
    if (more.isEmpty()) {
      return line;
    }
    TreeMap<Long, Keyframe> all = new TreeMap<>();
    line.keyframes().forEach(k -> all.put(k.frame(), k));
    more.forEach(k -> all.put(k.frame(), k));
    return LevelLine.of(new ArrayList<>(all.values()));
  }

  private static Keyframe moved(Keyframe keyframe, long byFrames) {
    return keyframe.withFrame(Math.max(0, keyframe.frame() + byFrames));
  }

  /**
   * A line with the keyframes over clips moved as the clips are; one that lies where another comes
   * to gives way.
   */
  static LevelLine carried(LevelLine line, Collection<Clip> clips, ToLongFunction<Clip> byFrames) {
    Map<Long, Long> byOf = new HashMap<>();
    for (Clip clip : clips) {
      over(line, clip.span()).forEach(k -> byOf.putIfAbsent(k.frame(), byFrames.applyAsLong(clip)));
    }
    List<Keyframe> going =
        line.keyframes().stream().filter(k -> byOf.containsKey(k.frame())).toList();
    return with(
        without(line, going), going.stream().map(k -> moved(k, byOf.get(k.frame()))).toList());
  }
}

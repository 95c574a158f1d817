package hushrise.core.edit;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.timeline.Clip;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** What goes along when clips move: the keyframes over them. */
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
}

package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** A dip of a level line where nobody speaks. */
final class IdleDip implements EarRule {

  /** What stays down for longer is no dip any more. */
  private static final double LONGEST_SECONDS = 30;

  @Override
  public String id() {
    return "line.idleDip";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Span> passages = Passages.of(project);
    List<Finding> found = new ArrayList<>();
    project.tracks().stream()
        .filter(Track::isBackground)
        .forEach(
            track -> {
              for (Dips.Dip dip : Dips.of(track.line())) {
                Span whole = new Span(dip.left().frame(), dip.right().frame());
                if (whole.lengthFrames() <= project.frames(LONGEST_SECONDS)
                    && passages.stream().noneMatch(whole::overlaps)) {
                  found.add(finding(track, dip, whole));
                }
              }
            });
    return found;
  }

  private Finding finding(Track track, Dips.Dip dip, Span whole) {
    Set<Long> floor = dip.floor().stream().map(Keyframe::frame).collect(Collectors.toSet());
    double deepest = dip.floor().stream().mapToDouble(Keyframe::levelDb).min().orElse(0);
    return new Finding(
        id(),
        track.id() + "@" + dip.floor().getFirst().frame(),
        whole,
        track.id(),
        List.of(deepest),
        List.of(new Remedy("remedy.flatten", now -> KeyframeEdits.remove(now, track.id(), floor))));
  }
}

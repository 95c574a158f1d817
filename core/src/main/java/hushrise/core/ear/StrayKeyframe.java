package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;

/**
 * A keyframe that stands out of the floor of its dip: one of them was forgotten. Where more than
 * one does, the floor is uneven on purpose, as a hand on the fader leaves it.
 */
final class StrayKeyframe implements EarRule {

  private static final double LEAST_DB = 1;

  @Override
  public String id() {
    return "line.stray";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      for (Dips.Dip dip : Dips.of(track.line())) {
        if (dip.floor().size() > 1) {
          double usual = usual(dip.floor());
          dip.floor().stream()
              .max(Comparator.comparingDouble(k -> Math.abs(k.levelDb() - usual)))
              .filter(k -> standsOut(k, usual))
              .filter(k -> dip.floor().stream().noneMatch(o -> o != k && standsOut(o, usual)))
              .ifPresent(k -> found.add(finding(track, dip, k, usual)));
        }
      }
    }
    return found;
  }

  private static boolean standsOut(Keyframe keyframe, double usual) {
    return Math.abs(keyframe.levelDb() - usual) >= LEAST_DB;
  }

  /** The level of most of a floor; of two the deeper, as it is the one that was pulled down. */
  private static double usual(List<Keyframe> floor) {
    List<Double> levels = floor.stream().map(Keyframe::levelDb).sorted().toList();
    return levels.get((levels.size() - 1) / 2);
  }

  private Finding finding(Track track, Dips.Dip dip, Keyframe stray, double usual) {
    return new Finding(
        id(),
        track.id() + "@" + stray.frame(),
        new Span(dip.left().frame(), dip.right().frame()),
        track.id(),
        List.of(stray.levelDb(), usual),
        List.of(
            new Remedy(
                "remedy.level",
                List.of(usual),
                now -> KeyframeEdits.setLevel(now, track.id(), Set.of(stray.frame()), usual))));
  }
}

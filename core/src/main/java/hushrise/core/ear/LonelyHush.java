package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** A hush under which nobody speaks. */
final class LonelyHush implements EarRule {

  @Override
  public String id() {
    return "hush.alone";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Span> passages = Passages.of(project);
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      List<Span> hushed = track.hushes().stream().map(Hush::passage).toList();
      List<Span> free = passages.stream().filter(p -> clear(p, hushed)).toList();
      for (Hush hush : track.hushes()) {
        if (clear(hush.passage(), passages)) {
          List<Remedy> remedies = new ArrayList<>();
          remedies.add(
              new Remedy("remedy.removeHush", now -> LevelEdits.removeHush(now, hush.id())));
          nearest(free, hush)
              .ifPresent(
                  p ->
                      remedies.add(
                          new Remedy(
                              "remedy.toPassage", now -> HushEdits.setPassage(now, hush.id(), p))));
          found.add(
              new Finding(
                  id(), hush.id(), hush.passage(), track.id(), List.of(hush.depthDb()), remedies));
        }
      }
    }
    return found;
  }

  private static boolean clear(Span span, List<Span> of) {
    for (Span other : of) {
      if (span.overlaps(other)) {
        return false;
      }
    }
    return true;
  }

  private static Optional<Span> nearest(List<Span> passages, Hush hush) {
    return passages.stream()
        .min(Comparator.comparingLong(p -> Math.abs(p.startFrame() - hush.startFrame())));
  }
}

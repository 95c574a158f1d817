package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Hush;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
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
      for (Hush hush : track.hushes()) {
        if (passages.stream().noneMatch(hush.passage()::overlaps)) {
          List<Remedy> remedies = new ArrayList<>();
          remedies.add(
              new Remedy("remedy.removeHush", now -> LevelEdits.removeHush(now, hush.id())));
          nearestFree(passages, track, hush)
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

  private static Optional<Span> nearestFree(List<Span> passages, Track track, Hush hush) {
    return passages.stream()
        .filter(p -> track.hushes().stream().noneMatch(h -> h.passage().overlaps(p)))
        .min(Comparator.comparingLong(p -> Math.abs(p.startFrame() - hush.startFrame())));
  }
}

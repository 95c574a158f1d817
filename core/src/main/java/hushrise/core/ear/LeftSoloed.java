package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;

/** Tracks that were left soloed, so that others are not heard. */
final class LeftSoloed implements EarRule {

  @Override
  public String id() {
    return "track.soloed";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Track> soloed =
        project.tracks().stream().filter(t -> t.soloed() && t.kind().sounds()).toList();
    boolean othersSilent =
        project.tracks().stream()
            .anyMatch(t -> t.kind().sounds() && !t.soloed() && !t.clips().isEmpty());
    if (soloed.isEmpty() || !othersSilent) {
      return List.of();
    }
    return List.of(
        new Finding(
            id(),
            soloed.getFirst().id(),
            new Span(0, project.lengthFrames()),
            soloed.getFirst().id(),
            List.of(soloed.getFirst().name()),
            List.of(
                new Remedy("remedy.unsolo", now -> now.withEachTrack(t -> t.withSoloed(false))))));
  }
}

package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.hush.HushDrafter;
import hushrise.core.hush.SingleHush;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.separation.Separation;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** A passage that stands less than the wanted separation above the rest. */
final class BuriedPassage implements EarRule {

  @Override
  public String id() {
    return "passage.buried";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Passages.Passage> each = Passages.each(project, project.heardTracks());
    List<Finding> found = new ArrayList<>();
    for (PassageLoudness p : heard.separation().passages()) {
      double missing = heard.separation().wantedLu() - p.separationLu();
      if (missing <= Separation.TOLERANCE_LU || !Double.isFinite(missing)) {
        continue;
      }
      List<Passages.Passage> parts =
          each.stream().filter(e -> e.span().overlaps(p.passage())).toList();
      List<Remedy> remedies = new ArrayList<>();
      background(project, p.passage())
          .ifPresent(
              t ->
                  remedies.add(
                      new Remedy(
                          "remedy.deepen",
                          List.of(t.name()),
                          now -> deepened(now, heard, t.id(), p.passage()))));
      remedies.add(
          new Remedy("remedy.raiseVoice", List.of(missing), now -> raised(now, parts, missing)));
      found.add(
          new Finding(
              id(),
              subject(parts),
              p.passage(),
              parts.isEmpty() ? "" : parts.getFirst().trackId(),
              List.of(p.separationLu(), heard.separation().wantedLu()),
              remedies));
    }
    return found;
  }

  private static String subject(List<Passages.Passage> parts) {
    return parts.isEmpty()
        ? ""
        : parts.getFirst().clipId() + "@" + parts.getFirst().inMedia().startFrame();
  }

  /** The track to hush: one that goes by a rule and sounds there. */
  private static Optional<Track> background(Project project, Span passage) {
    return project.tracks().stream()
        .filter(project.heardTracks().and(Track::isBackground))
        .filter(t -> HushDrafter.ruleOf(t).isPresent())
        .filter(t -> t.clips().stream().anyMatch(c -> c.span().overlaps(passage)))
        .findFirst();
  }

  private static Project deepened(Project project, Heard heard, String trackId, Span passage) {
    Track track = project.track(trackId).orElseThrow();
    Optional<Hush> present =
        track.hushes().stream().filter(h -> h.passage().overlaps(passage)).findFirst();
    Project without = present.map(h -> removed(project, trackId, h)).orElse(project);
    Turn turn =
        present
            .map(Hush::turn)
            .orElse(HushDrafter.ruleOf(track).map(HushRule::turn).orElse(Turn.DEFAULT));
    Optional<Hush> needed =
        SingleHush.of(without, heard.loudness(), heard.energies(), trackId, passage, turn);
    if (needed.isEmpty()) {
      return project;
    }
    if (present.isEmpty()) {
      return HushEdits.add(project, trackId, needed.get());
    }
    return HushEdits.change(
        project,
        present.get().id(),
        h ->
            h.withDepthDb(Math.min(h.depthDb(), needed.get().depthDb()))
                .withPassage(
                    new Span(
                        Math.min(h.startFrame(), passage.startFrame()),
                        Math.max(h.endFrame(), passage.endFrame()))));
  }

  private static Project removed(Project project, String trackId, Hush hush) {
    return project.withTrack(trackId, t -> t.withoutHush(hush.id()));
  }

  private static Project raised(Project project, List<Passages.Passage> parts, double byDb) {
    Project result = project;
    for (String clipId : parts.stream().map(Passages.Passage::clipId).distinct().toList()) {
      double gain = result.clip(clipId).map(Clip::gainDb).orElse(0.0);
      result = ClipEdits.setGain(result, Set.of(clipId), gain + byDb);
    }
    return result;
  }
}

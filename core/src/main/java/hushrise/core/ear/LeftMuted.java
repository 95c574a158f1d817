package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;

/** A track that was left muted. Silenced camera sound is usual and no finding. */
final class LeftMuted implements EarRule {

  @Override
  public String id() {
    return "track.muted";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    return project.tracks().stream()
        .filter(t -> t.muted() && t.kind().sounds() && !t.clips().isEmpty())
        .filter(t -> t.kind() != TrackKind.CAMERA || t.isVoice())
        .map(this::finding)
        .toList();
  }

  private Finding finding(Track track) {
    return new Finding(
        id(),
        track.id(),
        new Span(track.clipsInTime().getFirst().startFrame(), track.endFrame()),
        track.id(),
        List.of(track.name()),
        List.of(
            new Remedy(
                "remedy.unmute", now -> now.withTrack(track.id(), t -> t.withMuted(false)))));
  }
}

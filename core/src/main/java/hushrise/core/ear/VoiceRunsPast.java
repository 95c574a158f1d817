package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ClipEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Narration that goes on speaking after the picture has ended: nobody will hear it. */
final class VoiceRunsPast implements EarRule {

  private static final double LEAST_SECONDS = 0.1;
  private static final double LOOK_BACK_SECONDS = 3;

  @Override
  public String id() {
    return "voice.long";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Finding> found = new ArrayList<>();
    project
        .voiceTracks()
        .filter(project.heardTracks())
        .filter(t -> project.pictureEndFrame().isPresent())
        .forEach(t -> t.clips().forEach(c -> finding(project, t, c).ifPresent(found::add)));
    return found;
  }

  private Optional<Finding> finding(Project project, Track track, Clip clip) {
    Media media = project.media(clip.mediaId()).orElseThrow();
    Optional<Span> unheard =
        Passages.unheard(project, track, clip, media)
            .filter(s -> s.lengthFrames() > project.frames(LEAST_SECONDS));
    return unheard.map(
        span -> {
          long end = span.startFrame();
          List<Remedy> remedies = new ArrayList<>();
          if (clip.startFrame() >= span.lengthFrames()) {
            remedies.add(
                new Remedy(
                    "remedy.moveEarlier",
                    List.of(project.seconds(span.lengthFrames())),
                    now -> ClipEdits.move(now, Set.of(clip.id()), -span.lengthFrames(), true)));
          }
          if (clip.startFrame() < end) {
            remedies.add(new Remedy("remedy.trim", now -> ClipEdits.trimEnd(now, clip.id(), end)));
          }
          return new Finding(
              id(),
              clip.id(),
              new Span(Math.max(0, end - project.frames(LOOK_BACK_SECONDS)), end),
              track.id(),
              List.of(media.title(), project.seconds(span.lengthFrames())),
              remedies);
        });
  }
}

package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ClipEdits;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/** Music that goes on after the picture has ended. */
final class MusicRunsPast implements EarRule {

  private static final double LEAST_SECONDS = 0.1;

  @Override
  public String id() {
    return "music.long";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    long end = project.pictureEndFrame().orElse(Long.MAX_VALUE);
    List<Finding> found = new ArrayList<>();
    for (Track track : MusicClips.heardMusic(project).toList()) {
      for (Clip clip : track.clips()) {
        if (clip.startFrame() < end && clip.endFrame() - project.frames(LEAST_SECONDS) > end) {
          found.add(
              new Finding(
                  id(),
                  clip.id(),
                  new Span(Math.max(clip.startFrame(), end - project.frames(3)), end),
                  track.id(),
                  List.of(project.seconds(clip.endFrame() - end)),
                  List.of(new Remedy("remedy.trim", now -> trimmed(now, clip.id(), end)))));
        }
      }
    }
    return found;
  }

  private static Project trimmed(Project project, String clipId, long end) {
    return MusicClips.fadedOut(
        ClipEdits.trimEnd(project, clipId, end), clipId, Fits.FADE_OUT_SECONDS);
  }
}

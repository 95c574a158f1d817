package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.FadeEdits;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/** Music that is there all at once, in the middle of its sound. */
final class AbruptStart implements EarRule {

  private static final int STEPS = 3;

  @Override
  public String id() {
    return "music.abrupt";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Finding> found = new ArrayList<>();
    for (Track track : MusicClips.heardMusic(project).toList()) {
      for (Clip clip : track.clips()) {
        boolean goesOn =
            track.clips().stream()
                .anyMatch(
                    c -> c.startFrame() < clip.startFrame() && c.endFrame() >= clip.startFrame());
        boolean begins = clip.mediaStartFrame() < project.frames(0.05);
        int first = heard.energies().stepAt(clip.startFrame());
        boolean loud = MusicClips.isLoud(heard, track, clip, first, STEPS);
        if (!goesOn && clip.fadeIn().visibleFrames() == 0 && loud && !begins) {
          found.add(finding(project, track, clip, "remedy.fadeIn", Fits.FADE_IN_SECONDS));
        } else if (!goesOn && clip.fadeIn().visibleFrames() == 0 && loud) {
          found.add(finding(project, track, clip, "remedy.fadeIn", Fits.FADE_IN_SECONDS / 4));
        }
      }
    }
    return found;
  }

  private Finding finding(Project project, Track track, Clip clip, String words, double seconds) {
    return new Finding(
        id(),
        clip.id(),
        Span.ofLength(clip.startFrame(), Math.min(clip.lengthFrames(), project.frames(3))),
        track.id(),
        List.of(),
        List.of(new Remedy(words, List.of(seconds), now -> faded(now, clip.id(), seconds))));
  }

  private static Project faded(Project project, String clipId, double seconds) {
    Clip clip = project.clip(clipId).orElseThrow();
    long room = Math.max(0, clip.lengthFrames() - clip.fadeOut().visibleFrames());
    return FadeEdits.setIn(project, clipId, Math.min(room, project.frames(seconds)));
  }
}

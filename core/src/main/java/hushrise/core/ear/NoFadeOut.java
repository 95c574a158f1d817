package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/** Music that is cut off while it is loud: no fade, and nothing that takes over. */
final class NoFadeOut implements EarRule {

  private static final int STEPS = 8;

  @Override
  public String id() {
    return "music.noFade";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    long filmEnd = project.lengthFrames();
    List<Finding> found = new ArrayList<>();
    for (Track track : MusicClips.heardMusic(project).toList()) {
      for (Clip clip : track.clips().stream().filter(c -> c.startFrame() < filmEnd).toList()) {
        long end = Math.min(clip.endFrame(), filmEnd);
        boolean takenOver =
            track.clips().stream()
                .anyMatch(c -> c.startFrame() > clip.startFrame() && c.startFrame() <= end);
        boolean faded = clip.fadeOut().visibleFrames() > 0 && clip.endFrame() <= filmEnd;
        int last = heard.energies().stepAt(end);
        if (!takenOver && !faded && MusicClips.isLoud(heard, track, clip, last - STEPS, STEPS)) {
          found.add(
              new Finding(
                  id(),
                  clip.id(),
                  new Span(Math.max(clip.startFrame(), end - project.frames(3)), end),
                  track.id(),
                  List.of(),
                  List.of(
                      new Remedy(
                          "remedy.fadeOut",
                          List.of(Fits.FADE_OUT_SECONDS),
                          now -> MusicClips.fadedOut(now, clip.id(), Fits.FADE_OUT_SECONDS)))));
        }
      }
    }
    return found;
  }
}

package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Side;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;

/** A clip that sounds on one side alone, as of a microphone plugged into one channel. */
final class OneSided implements EarRule {

  private static final double APART_LU = 30;

  @Override
  public String id() {
    return "clip.oneSided";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      for (Clip clip : track.clips()) {
        Media media = project.media(clip.mediaId()).orElseThrow();
        if (track.kind().sounds() && media.hasSound() && clip.side() == Side.BOTH) {
          look(found, heard.loudness().steps(media), project, track, clip);
        }
      }
    }
    return found;
  }

  private void look(
      List<Finding> found, LoudnessSteps steps, Project project, Track track, Clip clip) {
    int first = LoudnessSteps.nearestStep(clip.mediaStartFrame(), project.sampleRate());
    long playsTo = clip.mediaStartFrame() + clip.lengthFrames();
    int last = Math.min(steps.count(), LoudnessSteps.nearestStep(playsTo, project.sampleRate()));
    double left = GatedLoudness.lufs(i -> steps.energy(0, i), first, last);
    double right = GatedLoudness.lufs(i -> steps.energy(1, i), first, last);
    double loud = Math.max(left, right);
    if (!Double.isFinite(loud) || loud - Math.min(left, right) < APART_LU) {
      return;
    }
    Side side = left > right ? Side.LEFT : Side.RIGHT;
    found.add(
        new Finding(
            id(),
            clip.id(),
            clip.span(),
            track.id(),
            List.of(project.media(clip.mediaId()).orElseThrow().title(), side == Side.LEFT ? 0 : 1),
            List.of(
                new Remedy(
                    "remedy.bothSides",
                    now -> now.withEachTrack(t -> t.withClip(clip.id(), c -> c.withSide(side)))))));
  }
}

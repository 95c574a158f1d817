package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** A clip that plays samples cut off at full scale: they rasp, and no level mends them. */
final class ClippedSound implements EarRule {

  private static final int LEAST_SAMPLES = 4;
  private static final double SOFTER_DB = 3;

  @Override
  public String id() {
    return "clip.clipped";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      for (Clip clip : track.clips()) {
        Media media = project.media(clip.mediaId()).orElseThrow();
        if (track.kind().sounds() && media.hasSound()) {
          look(found, heard.loudness().steps(media), project, track, clip);
        }
      }
    }
    return found;
  }

  private void look(
      List<Finding> found, LoudnessSteps steps, Project project, Track track, Clip clip) {
    int rate = project.sampleRate();
    int first = LoudnessSteps.nearestStep(clip.mediaStartFrame(), rate);
    long playsTo = clip.mediaStartFrame() + clip.lengthFrames();
    int last = clip.seams().isEmpty() ? LoudnessSteps.nearestStep(playsTo, rate) : steps.count();
    int clipped = 0;
    int worst = first;
    for (int i = first; i < Math.min(last, steps.count()); i++) {
      clipped += steps.clipped(i);
      worst = steps.clipped(i) > steps.clipped(worst) ? i : worst;
    }
    if (clipped < LEAST_SAMPLES) {
      return;
    }
    long at = clip.startFrame() + LoudnessSteps.frameOf(worst, rate) - clip.mediaStartFrame();
    found.add(
        new Finding(
            id(),
            clip.id(),
            Span.ofLength(at, project.frames(0.5)),
            track.id(),
            List.of(project.media(clip.mediaId()).orElseThrow().title(), clipped),
            List.of(
                new Remedy("remedy.markClipped", now -> MarkerEdits.add(now, "Clipped", at)),
                new Remedy(
                    "remedy.softer",
                    List.of(SOFTER_DB),
                    now ->
                        ClipEdits.setGain(
                            now,
                            Set.of(clip.id()),
                            now.clip(clip.id()).map(Clip::gainDb).orElse(0.0) - SOFTER_DB)))));
  }
}

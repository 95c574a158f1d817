package hushrise.core.ear;

import hushrise.core.Problem;
import hushrise.core.ear.Finding.Remedy;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** A seam in music that will be noticed, with nobody speaking over it. */
final class HeardSeam implements EarRule {

  private static final double AROUND_SECONDS = 2;

  @Override
  public String id() {
    return "music.seam";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Span> spoken = Passages.of(project);
    List<Finding> found = new ArrayList<>();
    for (Track track : MusicClips.heardMusic(project).toList()) {
      for (Clip clip : track.clips()) {
        for (int i = 0; i < clip.seams().size(); i++) {
          Seam seam = clip.seams().get(i);
          long at = clip.startFrame() + seam.atFrame();
          boolean isCovered = spoken.stream().anyMatch(s -> s.contains(at));
          if (seam.heard() == Seam.Heard.NOTICED && !isCovered && at < clip.endFrame()) {
            found.add(finding(heard, track, clip, i, at));
          }
        }
      }
    }
    return found;
  }

  /** Moves it under a cut of the picture, where one is near. */
  private static Optional<Remedy> underCut(Heard heard, Clip clip, int index) {
    try {
      Fits.moveSeamToCut(heard.project(), clip.id(), index, heard.cuts(), heard.songs());
    } catch (Problem noneNear) {
      return Optional.empty();
    }
    return Optional.of(
        new Remedy(
            "remedy.seamToCut",
            now ->
                now.clip(clip.id()).filter(c -> index < c.seams().size()).isPresent()
                    ? Fits.moveSeamToCut(now, clip.id(), index, heard.cuts(), heard.songs())
                    : now));
  }

  private Finding finding(Heard heard, Track track, Clip clip, int index, long at) {
    Project project = heard.project();
    Seam seam = clip.seams().get(index);
    long around = project.frames(AROUND_SECONDS);
    Media media = project.media(clip.mediaId()).orElseThrow();
    List<Remedy> remedies = new ArrayList<>();
    if (clip.fit().isPresent() && heard.songs().song(media).isPresent()) {
      remedies.add(
          new Remedy(
              "remedy.nextSeam",
              now ->
                  now.clip(clip.id()).filter(c -> index < c.seams().size()).isPresent()
                      ? Fits.rejectSeam(now, clip.id(), index, heard.songs())
                      : now));
      if (!Passages.of(project).isEmpty()) {
        remedies.add(
            new Remedy(
                "remedy.coverSeam", now -> Fits.refine(now, clip.id(), f -> f, heard.songs())));
      }
      underCut(heard, clip, index).ifPresent(remedies::add);
      if (media.lengthFrames() - clip.mediaStartFrame() >= clip.lengthFrames()) {
        remedies.add(
            new Remedy(
                "remedy.trim", now -> Fits.set(now, clip.id(), FitMode.TRIM, heard.songs())));
      }
    }
    return new Finding(
        id(),
        clip.id() + "@" + seam.fromFrame() + ">" + seam.toFrame(),
        new Span(Math.max(0, at - around), at + around),
        track.id(),
        List.of(media.title()),
        remedies);
  }
}

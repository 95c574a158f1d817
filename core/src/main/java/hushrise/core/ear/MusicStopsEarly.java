package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/** Music that stops before the picture does. */
final class MusicStopsEarly implements EarRule {

  private static final double LEAST_SECONDS = 0.25;

  @Override
  public String id() {
    return "music.short";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    long end = project.pictureEndFrame().orElse(0);
    return MusicClips.last(project)
        .filter(c -> end - soundEnd(heard, c) > project.frames(LEAST_SECONDS) + leeway(c))
        .map(c -> List.of(finding(heard, c, end)))
        .orElse(List.of());
  }

  /** By how much it was said that its own ending may come sooner. */
  private static long leeway(Clip clip) {
    return clip.fit().flatMap(Fit::leewayFrames).orElse(0L);
  }

  /** Where a clip is heard last, at its start at the earliest: its song may go on in silence. */
  private static long soundEnd(Heard heard, Clip clip) {
    Media media = heard.project().media(clip.mediaId()).orElseThrow();
    long content = clip.mediaFrameAt(clip.lengthFrames() - 1) + 1;
    if (content <= heard.songs().lastsUntil(media)) {
      return clip.endFrame();
    }
    long sounds = heard.songs().song(media).map(s -> s.analysis().soundEnd()).orElse(content);
    return Math.max(clip.startFrame(), clip.endFrame() - (content - sounds));
  }

  private Finding finding(Heard heard, Clip clip, long end) {
    Project project = heard.project();
    long soundEnd = soundEnd(heard, clip);
    List<Remedy> remedies = new ArrayList<>();
    if (project.media(clip.mediaId()).flatMap(heard.songs()::song).isPresent()) {
      remedies.add(
          new Remedy("remedy.loop", now -> Fits.set(now, clip.id(), FitMode.LOOP, heard.songs())));
    }
    if (clip.fadeOut().lengthFrames() == 0) {
      remedies.add(
          new Remedy(
              "remedy.fadeAway",
              now -> MusicClips.fadedOut(now, clip.id(), Fits.FADE_OUT_SECONDS)));
    }
    return new Finding(
        id(),
        clip.id(),
        new Span(soundEnd, end),
        project.trackOfClip(clip.id()).orElseThrow().id(),
        List.of(project.seconds(end - soundEnd)),
        remedies);
  }
}

package hushrise.core.edit;

import hushrise.core.Problem;
import hushrise.core.fit.Fits;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** How one song gives way to the next: it sounds on for a while as the next one begins. */
public final class SongChange {

  private static final double CROSSFADE_SECONDS = 2;

  private SongChange() {}

  /**
   * Where a song ends that gives way to another: a crossfade after that one's start, or by itself
   * if it does so just then.
   *
   * @param ownEnd where on the timeline it would end by itself
   * @param nextStart where the other starts
   */
  public static long endFrame(long ownEnd, long nextStart, int sampleRate) {
    long faded = nextStart + crossfadeFrames(sampleRate);
    return ownEnd >= nextStart && ownEnd <= faded ? ownEnd : faded;
  }

  static long crossfadeFrames(int sampleRate) {
    return Math.round(CROSSFADE_SECONDS * sampleRate);
  }

  /** The music that sounds at a time on the track that music is placed on. */
  public static Optional<Clip> playingAt(Project project, long frame) {
    return music(project)
        .filter(c -> c.span().contains(frame))
        .max(Comparator.comparingLong(Clip::startFrame));
  }

  /** The music that begins next after a time on the track that music is placed on. */
  static Optional<Clip> nextAfter(Project project, long frame) {
    return music(project)
        .filter(c -> c.startFrame() > frame)
        .min(Comparator.comparingLong(Clip::startFrame));
  }

  private static Stream<Clip> music(Project project) {
    return project.firstTrack(TrackKind.MUSIC).stream().flatMap(t -> t.clips().stream());
  }

  /** The project in which a song ends as another starts. */
  static Project givingWay(Project project, Clip first, long nextStart, Songs songs) {
    Media media = project.media(first.mediaId()).orElseThrow();
    int rate = project.sampleRate();
    long ownEnd = first.startFrame() + media.usefulPart().endFrame() - first.mediaStartFrame();
    long end = endFrame(ownEnd, nextStart, rate);
    Clip given = ended(first.withFadeOut(Fade.NONE), media, end, songs, rate);
    return project.withEachTrack(t -> t.withClip(first.id(), c -> given.withFittingFades()));
  }

  /** The project in which songs that are over before another starts do not go on with the film. */
  static Project endingBefore(Project project, long nextStart) {
    Optional<Track> track = project.firstTrack(TrackKind.MUSIC);
    return track
        .map(t -> project.withTrack(t.id(), now -> now.withClips(endedBefore(now, nextStart))))
        .orElse(project);
  }

  private static List<Clip> endedBefore(Track track, long nextStart) {
    return track.clips().stream()
        .map(
            c ->
                c.endFrame() <= nextStart
                    ? c.withFit(c.fit().map(f -> f.withUntilFrame(endOf(c, f))))
                    : c)
        .toList();
  }

  private static Optional<Long> endOf(Clip clip, Fit fit) {
    return Optional.of(fit.untilFrame().orElse(clip.endFrame()));
  }

  private static Clip ended(Clip clip, Media media, long end, Songs songs, int sampleRate) {
    Optional<Fit> until = clip.fit().map(f -> f.withUntilFrame(Optional.of(end)));
    if (until.isPresent() && songs.song(media).isPresent()) {
      try {
        return Fits.fitted(clip.withFit(until), media, songs, end, sampleRate);
      } catch (Problem e) {
        until = until.map(f -> f.withMode(FitMode.TRIM));
      }
    }
    long length = Math.min(end - clip.startFrame(), ClipShape.longest(clip, media));
    return ClipShape.upTo(clip.withFit(until), length);
  }
}

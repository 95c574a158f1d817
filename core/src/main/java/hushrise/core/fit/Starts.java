package hushrise.core.fit;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/** Edits of where in its song music starts, and where the song's beats fall on the timeline. */
public final class Starts {

  private static final double BUILD_SECONDS = 4;
  private static final double SHORTEST_SECONDS = 1;

  private Starts() {}

  /**
   * Lets a clip start with another place of its song; where on the timeline it starts stays, and it
   * ends where it ended unless the song is over before.
   *
   * @throws Problem when it then cannot be fitted
   */
  public static Project at(Project project, String clipId, long mediaFrame, Songs songs) {
    Clip clip = project.clip(clipId).orElseThrow();
    Media media = project.media(clip.mediaId()).orElseThrow();
    long room = media.lengthFrames() - mediaFrame;
    if (room < project.frames(SHORTEST_SECONDS)) {
      throw new Problem(
          "%s is over there: choose an earlier place to start it at.".formatted(media.title()));
    }
    if (clip.fit().isEmpty()) {
      long length = Math.min(clip.lengthFrames(), room);
      return with(project, clip.withExtent(clip.startFrame(), length, mediaFrame, List.of()));
    }
    if (clip.fit().get().mode() == FitMode.TAILOR) {
      Span part = new Span(mediaFrame, media.lengthFrames());
      return Fits.refine(project, clipId, f -> f.withPart(Optional.of(part)), songs);
    }
    Clip moved = clip.withExtent(clip.startFrame(), clip.lengthFrames(), mediaFrame, List.of());
    return Fits.refine(with(project, moved), clipId, f -> f, songs);
  }

  /**
   * Slides a clip's music so that its loudest build reaches its height at a time.
   *
   * @param frame on the timeline
   * @throws Problem when the song is not known yet, or is over before that
   */
  public static Project peakAt(Project project, String clipId, long frame, Songs songs) {
    Clip clip = project.clip(clipId).orElseThrow();
    Media media = project.media(clip.mediaId()).orElseThrow();
    Song song = songs.song(media).orElseThrow(() -> Fits.notYet(media));
    if (clip.fit().filter(f -> f.mode() == FitMode.TAILOR).isPresent()) {
      throw new Problem(
          "Tailored music keeps its own beginning and ending: choose trim or loop for %s first."
              .formatted(media.title()));
    }
    long peak = peakFrame(song.analysis());
    long start = frame - (peak - clip.mediaStartFrame());
    long mediaStart = clip.mediaStartFrame();
    if (start < 0 || peak < clip.mediaStartFrame()) {
      start = Math.max(0, frame - peak);
      mediaStart = peak - (frame - start);
    }
    long from = start;
    if (clip.fit().isEmpty()) {
      long length = Math.min(clip.lengthFrames(), media.lengthFrames() - mediaStart);
      return with(project, clip.withExtent(from, length, mediaStart, List.of()));
    }
    Clip moved = clip.withExtent(from, clip.lengthFrames(), mediaStart, List.of());
    return Fits.refine(with(project, moved), clipId, f -> f.withAnchorFrame(from), songs);
  }

  private static Project with(Project project, Clip clip) {
    return project.withEachTrack(t -> t.withClip(clip.id(), c -> clip));
  }

  /** The media frame with which a song has built up: loud from there on, and softer before. */
  static long peakFrame(SongAnalysis song) {
    int reach = Math.max(1, (int) (BUILD_SECONDS * song.sampleRate() / song.usualStretch()));
    int best = 0;
    double most = Double.NEGATIVE_INFINITY;
    for (int i = reach; i + reach <= song.stretches(); i++) {
      double before = mean(song.levelDb(), i - reach, i);
      double after = mean(song.levelDb(), i, i + reach);
      double score = after + (after - before) / 2;
      if (score > most) {
        most = score;
        best = i;
      }
    }
    return song.edges()[best];
  }

  private static double mean(float[] levels, int from, int to) {
    double sum = 0;
    for (int i = from; i < to; i++) {
      sum += levels[i];
    }
    return sum / (to - from);
  }

  /**
   * Where near a time a bar of a track's music begins on the timeline; empty where no music with a
   * beat plays.
   */
  public static OptionalLong downbeatNear(
      Project project, Track track, Songs songs, long frame, long within) {
    long best = -1;
    for (Clip clip : track.clips()) {
      Optional<Song> song = project.media(clip.mediaId()).flatMap(songs::song);
      if (!clip.span().contains(frame) || song.isEmpty() || !song.get().analysis().hasBeat()) {
        continue;
      }
      SongAnalysis analysis = song.get().analysis();
      long media = clip.mediaFrameAt(frame - clip.startFrame());
      int edge = analysis.edgeNear(media);
      for (int e = Math.max(0, edge - 8); e <= Math.min(edge + 8, analysis.stretches()); e++) {
        long at = frame + analysis.edges()[e] - media;
        boolean plays =
            clip.span().contains(at)
                && clip.mediaFrameAt(at - clip.startFrame()) == analysis.edges()[e];
        boolean near = Math.abs(at - frame) <= within;
        if (analysis.isBarLine(e)
            && plays
            && near
            && (best < 0 || Math.abs(at - frame) < Math.abs(best - frame))) {
          best = at;
        }
      }
    }
    return best < 0 ? OptionalLong.empty() : OptionalLong.of(best);
  }
}

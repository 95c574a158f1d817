package hushrise.core.fit;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Jump;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.UnaryOperator;

/** Gives music clips their fits, and keeps them: each is a function from project to project. */
public final class Fits {

  /** How long fades are unless said otherwise, in seconds. */
  public static final double FADE_IN_SECONDS = 2;

  public static final double FADE_OUT_SECONDS = 4;

  /** So near a cut of the picture a seam lies under it. */
  private static final double AT_CUT_SECONDS = 0.12;

  private static final int MOST_BEATS_TO_CUT = 24;

  private Fits() {}

  /**
   * Where music that is fitted to the whole of a project ends: with the picture; in sound without
   * one, as long after the last take as music takes to fade. Empty where there is neither.
   */
  public static OptionalLong endOf(Project project) {
    if (project.pictureEndFrame().isPresent()) {
      return project.pictureEndFrame();
    }
    long spoken = project.voiceTracks().mapToLong(Track::endFrame).max().orElse(0);
    return spoken > 0
        ? OptionalLong.of(spoken + project.frames(FADE_OUT_SECONDS))
        : OptionalLong.empty();
  }

  /** Where a fit has to end: at the time chosen for it, else with the project. */
  public static long endOf(Project project, Clip clip, Fit fit) {
    return fit.untilFrame().orElseGet(() -> endOf(project).orElseGet(clip::endFrame));
  }

  /**
   * Gives a clip a fit and applies it. Tailored music keeps its own beginning and ending and loses
   * the clip's fades; otherwise usual fades are given where there are none.
   *
   * @throws Problem when the clip cannot be fitted, saying why
   */
  public static Project set(Project project, String clipId, FitMode mode, Songs songs) {
    return change(
        project,
        clipId,
        songs,
        clip -> {
          Fit fit = clip.fit().map(f -> f.withMode(mode)).orElse(Fit.of(mode, clip.startFrame()));
          Clip begun = clip.withFit(Optional.of(fit));
          return mode == FitMode.TAILOR
              ? begun.withFadeIn(Fade.NONE).withFadeOut(Fade.NONE)
              : usuallyFaded(begun, endOf(project, clip, fit) - clip.startFrame(), project);
        });
  }

  private static Clip usuallyFaded(Clip clip, long length, Project project) {
    Clip faded = clip;
    if (clip.fadeIn().lengthFrames() == 0) {
      faded = faded.withFadeIn(usual(project, FADE_IN_SECONDS, length));
    }
    if (clip.fadeOut().lengthFrames() == 0) {
      faded = faded.withFadeOut(usual(project, FADE_OUT_SECONDS, length));
    }
    return faded;
  }

  private static Fade usual(Project project, double seconds, long length) {
    return Fade.ofLength(Math.max(0, Math.min(project.frames(seconds), length / 3)));
  }

  /** Lets a clip keep the length and the seams it has. */
  public static Project remove(Project project, String clipId) {
    return project.withEachTrack(t -> t.withClip(clipId, c -> c.withFit(Optional.empty())));
  }

  /**
   * Changes a clip's fit and applies it.
   *
   * @throws Problem when the clip then cannot be fitted, saying why
   */
  public static Project refine(
      Project project, String clipId, UnaryOperator<Fit> change, Songs songs) {
    return change(project, clipId, songs, c -> c.withFit(c.fit().map(change)));
  }

  /** Takes a seam away: the next best one takes its place. */
  public static Project rejectSeam(Project project, String clipId, int index, Songs songs) {
    Clip clip = project.clip(clipId).orElseThrow();
    Media media = project.media(clip.mediaId()).orElseThrow();
    long near = songOf(media, songs).analysis().usualStretch() / 2;
    Jump jump = jumpOf(seamOf(clip, index));
    return refine(project, clipId, f -> f.rejecting(jump, near), songs);
  }

  /**
   * Moves a seam along the song by a number of beats: both sides move alike, so that the length
   * stays.
   *
   * @param beats how far; negative is earlier
   */
  public static Project moveSeam(
      Project project, String clipId, int index, int beats, Songs songs) {
    Clip clip = project.clip(clipId).orElseThrow();
    Media media = project.media(clip.mediaId()).orElseThrow();
    SongAnalysis song = songOf(media, songs).analysis();
    Jump old = jumpOf(seamOf(clip, index));
    int last = song.stretches() - 1;
    int from = song.edgeNear(old.fromFrame());
    int to = song.edgeNear(old.toFrame());
    int least = 1 - Math.min(from, to);
    int most = last - Math.max(from, to);
    if (least > most) {
      return project; // it leads from the song's very end to its very beginning
    }
    int by = Math.clamp(beats, least, most);
    Jump jump = new Jump(song.edges()[from + by], song.edges()[to + by]);
    return refine(project, clipId, f -> f.replacing(old, jump, song.usualStretch() / 2), songs);
  }

  /**
   * Moves a seam along the song, by beats, to the nearest cut of the picture that a beat meets:
   * what changes there for the eye covers what changes for the ear. The length stays.
   *
   * @param cuts on the timeline
   * @throws Problem when no beat within reach meets a cut
   */
  public static Project moveSeamToCut(
      Project project, String clipId, int index, List<Long> cuts, Songs songs) {
    Clip clip = project.clip(clipId).orElseThrow();
    Media media = project.media(clip.mediaId()).orElseThrow();
    SongAnalysis song = songOf(media, songs).analysis();
    Seam seam = seamOf(clip, index);
    long at = clip.startFrame() + seam.atFrame();
    int from = song.edgeNear(seam.fromFrame());
    long near = project.frames(AT_CUT_SECONDS);
    int last = song.stretches() - 1;
    int best = 0;
    for (int by = -MOST_BEATS_TO_CUT; by <= MOST_BEATS_TO_CUT; by++) {
      if (by != 0
          && from + by > 0
          && from + by < last
          && (best == 0 || Math.abs(by) < Math.abs(best))) {
        long moved = at + song.edges()[from + by] - song.edges()[from];
        boolean meets = cuts.stream().anyMatch(c -> Math.abs(c - moved) <= near);
        best = meets ? by : best;
      }
    }
    if (best == 0) {
      throw new Problem(
          "No cut of the picture lies on a beat near this seam of %s: press R for the next best place instead."
              .formatted(media.title()));
    }
    return moveSeam(project, clipId, index, best, songs);
  }

  private static Seam seamOf(Clip clip, int index) {
    if (index >= clip.seams().size()) {
      throw new NoSuchElementException("No seam " + index + " in " + clip.id());
    }
    return clip.seams().get(index);
  }

  private static Jump jumpOf(Seam seam) {
    return new Jump(seam.fromFrame(), seam.toFrame());
  }

  static Problem notYet(Media media) {
    return new Problem(
        "%s is still being listened to: try again in a moment.".formatted(media.title()));
  }

  private static Project change(
      Project project, String clipId, Songs songs, UnaryOperator<Clip> change) {
    Clip clip = change.apply(project.clip(clipId).orElseThrow());
    Media media = project.media(clip.mediaId()).orElseThrow();
    Fit fit = clip.fit().orElseThrow();
    long end = endOf(project, clip, fit);
    long length = end - fit.anchorFrame();
    long fades = clip.fadeIn().lengthFrames() + clip.fadeOut().lengthFrames();
    if (length > 0 && fades > length) {
      throw new Problem(
          "The fades of %s (%.1f s) are longer than the %.1f s it is to last: shorten them first."
              .formatted(media.title(), project.seconds(fades), project.seconds(length)));
    }
    Clip fitted = fitted(project, clip, media, songs, end);
    return project.withEachTrack(t -> t.withClip(clipId, c -> fitted));
  }

  /**
   * A clip with its fit applied.
   *
   * @param clip has a fit
   * @param end where on the timeline it has to end
   * @param sampleRate frames per second
   * @throws Problem when it cannot be fitted, saying why
   */
  public static Clip fitted(Clip clip, Media media, Songs songs, long end, int sampleRate) {
    return fitted(clip, media, songs, end, sampleRate, List.of());
  }

  private static Clip fitted(Project project, Clip clip, Media media, Songs songs, long end) {
    return fitted(clip, media, songs, end, project.sampleRate(), Passages.of(project));
  }

  /**
   * A clip with its fit applied.
   *
   * @param spoken where somebody speaks on the timeline: seams lie there by preference, as the
   *     music is down
   */
  public static Clip fitted(
      Clip clip, Media media, Songs songs, long end, int sampleRate, List<Span> spoken) {
    Fit fit = clip.fit().orElseThrow();
    long length = end - fit.anchorFrame();
    if (length < sampleRate / 10) {
      throw new Problem(
          "%s starts at %.1f s, and what it is fitted to ends at %.1f s: move it earlier."
              .formatted(
                  media.title(),
                  fit.anchorFrame() / (double) sampleRate,
                  end / (double) sampleRate));
    }
    Arrangement made =
        needsSearch(clip, media, length, songs)
            ? songOf(media, songs).arrangement(wish(clip, length, spoken), media.title())
            : plain(clip, media, length);
    Clip extended =
        clip.withExtent(
            fit.anchorFrame() + made.pauseFrames(),
            made.lengthFrames(),
            made.mediaStartFrame(),
            made.seams());
    return fadedWhereCut(extended, made, sampleRate).withFittingFades();
  }

  /** Tailored music whose ending is cut off fades out; with its ending back that fade goes. */
  private static Clip fadedWhereCut(Clip clip, Arrangement made, int sampleRate) {
    if (clip.fit().flatMap(Fit::leewayFrames).isEmpty()) {
      return clip;
    }
    long usual =
        Math.min(Math.round(FADE_OUT_SECONDS * sampleRate), Math.max(0, clip.lengthFrames() / 3));
    long is = clip.fadeOut().lengthFrames();
    if (made.cutFrames() > 0 && is == 0) {
      return clip.withFadeOut(Fade.ofLength(usual));
    }
    return made.cutFrames() == 0 && is == usual ? clip.withFadeOut(Fade.NONE) : clip;
  }

  /** Whether a clip's song has to be searched for places to jump from and to. */
  static boolean needsSearch(Clip clip, Media media, long length, Songs songs) {
    return switch (clip.fit().orElseThrow().mode()) {
      case TRIM -> false;
      case LOOP -> !lasts(clip, media, length, songs);
      case TAILOR -> true;
    };
  }

  /** Whether the part of the song that a clip's fit may use sounds for a length. */
  static boolean lasts(Clip clip, Media media, long length, Songs songs) {
    long end = Math.min(partEnd(clip, media), songs.lastsUntil(media));
    return end - clip.mediaStartFrame() >= length;
  }

  /** What a clip's fit asks of its song. */
  static Song.Wish wish(Clip clip, long length, List<Span> spoken) {
    Fit fit = clip.fit().orElseThrow();
    long anchor = fit.anchorFrame();
    List<Span> covered =
        spoken.stream()
            .filter(s -> s.endFrame() > anchor && s.startFrame() < anchor + length)
            .map(s -> new Span(s.startFrame() - anchor, s.endFrame() - anchor))
            .toList();
    return new Song.Wish(
        fit, fit.mode() == FitMode.TAILOR ? 0 : clip.mediaStartFrame(), length, covered);
  }

  /** Where the part of the song ends that a clip's fit may use. */
  static long partEnd(Clip clip, Media media) {
    return clip.fit().flatMap(Fit::part).map(Span::endFrame).orElse(media.lengthFrames());
  }

  private static Arrangement plain(Clip clip, Media media, long length) {
    long room = Math.max(partEnd(clip, media), clip.mediaStartFrame() + 1) - clip.mediaStartFrame();
    return new Arrangement(
        clip.mediaStartFrame(), Math.max(1, Math.min(room, length)), 0, List.of());
  }

  private static Song songOf(Media media, Songs songs) {
    return songs.song(media).orElseThrow(() -> notYet(media));
  }
}

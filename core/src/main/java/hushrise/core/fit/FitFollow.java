package hushrise.core.fit;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Lets fitted music end where it has to after an edit, as {@link Fits#endOf} says. Trimmed music
 * that reached its end, and does not last until where that has gone, is looped.
 */
public final class FitFollow {

  private FitFollow() {}

  /**
   * A project whose fits have followed.
   *
   * @param project with every fit applied that could be
   * @param problems what is to be said of those that could not
   * @param isComplete whether none was left as it is since its song has yet to be searched
   * @param awaitsListening whether one was left as it is since its song has yet to be listened to
   */
  public record Followed(
      Project project, List<String> problems, boolean isComplete, boolean awaitsListening) {}

  /** Applies every fit whose end is not where it has to be: after the picture's length changed. */
  public static Followed followed(Project project, Songs songs) {
    return followed(project, project, songs, true);
  }

  /**
   * Applies every fit whose end is not where it has to be, or whose clip an edit has changed.
   *
   * @param before the project before the edit
   */
  public static Followed followed(Project before, Project edited, Songs songs) {
    return followed(before, edited, songs, true);
  }

  /**
   * As {@link #followed(Project, Project, Songs)} without searching any song: a clip for which that
   * has not been done before is left as the edit made it, as is one whose song has yet to be
   * listened to. Takes no time to speak of.
   */
  public static Followed followedAsKnown(Project before, Project edited, Songs songs) {
    return followed(before, edited, songs, false);
  }

  private static Followed followed(Project before, Project edited, Songs songs, boolean searches) {
    List<String> problems = new ArrayList<>();
    Optional<List<Span>> passages = Optional.empty();
    Project result = edited;
    boolean complete = true;
    boolean awaits = false;
    for (Track track : edited.tracks()) {
      for (Clip clip : track.clips()) {
        if (clip.fit().isPresent()) {
          Media media = edited.media(clip.mediaId()).orElseThrow();
          long end = Fits.endOf(edited, clip, clip.fit().get());
          Clip asked = reaching(before, clip, media, end);
          if (asked == clip && isKept(before, clip, media, end)) {
            continue;
          }
          try {
            List<Span> spoken = passages.orElseGet(() -> Passages.of(edited));
            passages = Optional.of(spoken);
            if (searches || isKnown(asked, media, songs, end, spoken)) {
              Clip fitted = fittedOr(asked, clip, media, songs, end, edited.sampleRate(), spoken);
              result = result.withTrack(track.id(), t -> t.withClip(clip.id(), c -> fitted));
            } else {
              boolean heard = songs.song(media).isPresent();
              complete &= !heard;
              awaits |= !heard;
            }
          } catch (Problem e) {
            problems.add(e.getMessage());
          }
        }
      }
    }
    return new Followed(result, List.copyOf(problems), complete, awaits);
  }

  /**
   * Trimmed music that reached its end, and does not last until where that has gone, is to be
   * looped.
   */
  private static Clip reaching(Project before, Clip clip, Media media, long end) {
    Fit fit = clip.fit().orElseThrow();
    boolean lasts = Fits.partEnd(clip, media) - clip.mediaStartFrame() >= end - fit.anchorFrame();
    boolean outlasted =
        fit.mode() == FitMode.TRIM
            && !lasts
            && before
                .clip(clip.id())
                .filter(was -> was.fit().equals(clip.fit()))
                .filter(
                    was -> was.endFrame() == Fits.endOf(before, was, fit) && was.endFrame() != end)
                .isPresent();
    return outlasted ? clip.withFit(Optional.of(fit.withMode(FitMode.LOOP))) : clip;
  }

  /** A clip fitted as asked for, or as it was where its song does not serve for that. */
  private static Clip fittedOr(
      Clip asked,
      Clip clip,
      Media media,
      Songs songs,
      long end,
      int sampleRate,
      List<Span> spoken) {
    try {
      return Fits.fitted(asked, media, songs, end, sampleRate, spoken);
    } catch (Problem e) {
      if (asked == clip) {
        throw e;
      }
      return Fits.fitted(clip, media, songs, end, sampleRate, spoken);
    }
  }

  private static boolean isKnown(Clip clip, Media media, Songs songs, long end, List<Span> spoken) {
    long length = end - clip.fit().orElseThrow().anchorFrame();
    return length < 1
        || !Fits.needsSearch(clip, media, length)
        || songs.song(media).filter(s -> s.knows(Fits.wish(clip, length, spoken))).isPresent();
  }

  /** Whether a clip is as its fit made it: unchanged by the edit, and ending where it has to. */
  private static boolean isKept(Project before, Clip clip, Media media, long end) {
    if (before.clip(clip.id()).filter(was -> !hasSameContent(was, clip)).isPresent()) {
      return false;
    }
    Fit fit = clip.fit().orElseThrow();
    boolean misses =
        end - clip.endFrame() <= fit.leewayFrames().orElse(0L)
            && before.clip(clip.id()).isPresent()
            && Fits.endOf(before, clip, fit) == end;
    boolean reaches = clip.endFrame() == end || (clip.endFrame() < end && misses);
    boolean cannot =
        fit.mode() == FitMode.TRIM
            && clip.endFrame() < end
            && clip.mediaStartFrame() + clip.lengthFrames() == Fits.partEnd(clip, media);
    return reaches || cannot;
  }

  private static boolean hasSameContent(Clip a, Clip b) {
    return a.fit().equals(b.fit())
        && a.startFrame() == b.startFrame()
        && a.lengthFrames() == b.lengthFrames()
        && a.mediaStartFrame() == b.mediaStartFrame()
        && a.seams().equals(b.seams());
  }
}

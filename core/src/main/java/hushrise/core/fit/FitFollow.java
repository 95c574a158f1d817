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

  private final Project before;
  private final Project edited;
  private final Songs songs;
  private final boolean searches;
  private final List<String> problems = new ArrayList<>();
  private Optional<List<Span>> passages = Optional.empty();
  private boolean complete = true;
  private boolean awaits;

  private FitFollow(Project before, Project edited, Songs songs, boolean searches) {
    this.before = before;
    this.edited = edited;
    this.songs = songs;
    this.searches = searches;
  }

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
    return new FitFollow(project, project, songs, true).followed();
  }

  /**
   * Applies every fit whose end is not where it has to be, or whose clip an edit has changed.
   *
   * @param before the project before the edit
   */
  public static Followed followed(Project before, Project edited, Songs songs) {
    return new FitFollow(before, edited, songs, true).followed();
  }

  /**
   * As {@link #followed(Project, Project, Songs)} without searching any song: a clip for which that
   * has not been done before is left as the edit made it, as is one whose song has yet to be
   * listened to. Takes no time to speak of.
   */
  public static Followed followedAsKnown(Project before, Project edited, Songs songs) {
    return new FitFollow(before, edited, songs, false).followed();
  }

  private Followed followed() {
    Project result = edited;
    for (Track track : edited.tracks()) {
      for (Clip clip : track.clips()) {
        Clip followed = clip.fit().map(fit -> follow(clip, fit)).orElse(clip);
        if (followed != clip) {
          result = result.withTrack(track.id(), t -> t.withClip(clip.id(), c -> followed));
        }
      }
    }
    return new Followed(result, List.copyOf(problems), complete, awaits);
  }

  /** A clip as its fit asks for it, or as it is where that is not to be or cannot be yet. */
  private Clip follow(Clip clip, Fit fit) {
    Media media = edited.media(clip.mediaId()).orElseThrow();
    long end = Fits.endOf(edited, clip, fit);
    Clip asked = reaching(clip, media, end);
    if (asked == clip && isKept(clip, media, end)) {
      return clip;
    }
    try {
      if (searches || isKnown(asked, media, end)) {
        return fittedOr(asked, clip, media, end);
      }
    } catch (Problem e) {
      problems.add(e.getMessage());
      return clip;
    }
    boolean heard = songs.song(media).isPresent();
    complete &= !heard;
    awaits |= !heard;
    return clip;
  }

  private List<Span> spoken() {
    List<Span> spoken = passages.orElseGet(() -> Passages.of(edited));
    passages = Optional.of(spoken);
    return spoken;
  }

  /**
   * Trimmed music that reached its end, and does not last until where that has gone, is to be
   * looped.
   */
  private Clip reaching(Clip clip, Media media, long end) {
    Fit fit = clip.fit().orElseThrow();
    boolean lasts = Fits.lasts(clip, media, end - fit.anchorFrame(), songs);
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
  private Clip fittedOr(Clip asked, Clip clip, Media media, long end) {
    try {
      return Fits.fitted(asked, media, songs, end, edited.sampleRate(), spoken());
    } catch (Problem e) {
      if (asked == clip) {
        throw e;
      }
      return Fits.fitted(clip, media, songs, end, edited.sampleRate(), spoken());
    }
  }

  private boolean isKnown(Clip clip, Media media, long end) {
    long length = end - clip.fit().orElseThrow().anchorFrame();
    return length < 1
        || !Fits.needsSearch(clip, media, length, songs)
        || songs.song(media).filter(s -> s.knows(Fits.wish(clip, length, spoken()))).isPresent();
  }

  /** Whether a clip is as its fit made it: unchanged by the edit, and ending where it has to. */
  private boolean isKept(Clip clip, Media media, long end) {
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

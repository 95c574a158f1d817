package hushrise.core.edit;

import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.Optional;

/**
 * Lets a song that gave way to another end where that one starts, whichever of them an edit moves;
 * when the other one goes, it plays on in its place.
 */
public final class SongFollow {

  private final Project before;
  private final Project after;

  private SongFollow(Project before, Project after) {
    this.before = before;
    this.after = after;
  }

  /** The edited project; what comes of the fits that were changed is for them to find out. */
  public static Project followed(Project before, Project after) {
    SongFollow follow = new SongFollow(before, after);
    Project result = after;
    for (Track old : before.tracks()) {
      if (old.kind() != TrackKind.MUSIC
          || after.track(old.id()).filter(t -> !t.clips().equals(old.clips())).isEmpty()) {
        continue;
      }
      for (Clip first : old.clips()) {
        Optional<Clip> next = follow.nextOf(first, old);
        if (next.isPresent()) {
          result = follow.turned(result, first, next.get(), old.id());
        }
      }
    }
    return result;
  }

  /** The song that another gave way to: it starts just before that ends. */
  private Optional<Clip> nextOf(Clip first, Track track) {
    if (first.fit().flatMap(Fit::untilFrame).isEmpty()) {
      return Optional.empty();
    }
    long longest = SongChange.crossfadeFrames(before.sampleRate());
    return track.clips().stream()
        .filter(c -> c.startFrame() > first.startFrame() && c.startFrame() <= first.endFrame())
        .filter(c -> first.endFrame() - c.startFrame() <= longest)
        .findFirst();
  }

  private Project turned(Project project, Clip first, Clip next, String trackId) {
    Optional<Clip> is = after.clip(first.id());
    long until = first.fit().flatMap(Fit::untilFrame).orElseThrow();
    Optional<Long> untilNow = is.flatMap(Clip::fit).flatMap(Fit::untilFrame);
    if (is.isEmpty() || untilNow.isEmpty()) {
      return project;
    }
    long moved = is.get().startFrame() - first.startFrame();
    boolean setByHand = untilNow.get() != until && untilNow.get() != until + moved;
    if (setByHand) {
      return project;
    }
    Optional<Clip> there = after.track(trackId).flatMap(t -> t.clip(next.id()));
    if (there.isPresent()) {
      long end = until + there.get().startFrame() - next.startFrame();
      boolean follows = end - is.get().startFrame() > before.sampleRate();
      return follows && end != untilNow.get()
          ? ending(project, first.id(), Optional.of(end))
          : project;
    }
    boolean taken =
        after.track(trackId).stream()
            .flatMap(t -> t.clips().stream())
            .anyMatch(c -> c.startFrame() == next.startFrame());
    return taken ? project : inPlaceOf(project, first, next);
  }

  private Project inPlaceOf(Project project, Clip first, Clip gone) {
    Optional<Long> end =
        gone.fit().isPresent() ? gone.fit().flatMap(Fit::untilFrame) : Optional.of(gone.endFrame());
    return ending(project, first.id(), end)
        .withEachTrack(t -> t.withClip(first.id(), c -> c.withFadeOut(gone.fadeOut())));
  }

  /** With a song ending elsewhere; one that does not last till then is looped. */
  private static Project ending(Project project, String clipId, Optional<Long> until) {
    return project.withEachTrack(
        t -> t.withClip(clipId, c -> c.withFit(c.fit().map(f -> reaching(project, c, f, until)))));
  }

  private static Fit reaching(Project project, Clip clip, Fit fit, Optional<Long> until) {
    Fit ending = fit.withUntilFrame(until);
    long wanted = Fits.endOf(project, clip, ending) - clip.startFrame();
    long lasts =
        fit.part()
                .map(Span::endFrame)
                .orElse(project.media(clip.mediaId()).orElseThrow().lengthFrames())
            - clip.mediaStartFrame();
    boolean tooShort = fit.mode() == FitMode.TRIM && lasts < wanted;
    return tooShort ? ending.withMode(FitMode.LOOP) : ending;
  }
}

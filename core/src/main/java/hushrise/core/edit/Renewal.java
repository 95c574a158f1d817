package hushrise.core.edit;

import hushrise.core.Problem;
import hushrise.core.fit.Fits;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Take;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * An item of the Shelf that holds something else from now on: its file was written anew, or another
 * file takes its place, such as the next cut of the film, the song that was bought for the one that
 * was tried, or a voice with its noise taken out. Everything that was set stays: places, levels,
 * fades, hushes, fits.
 */
public final class Renewal {

  /** Contents whose lengths differ by less are taken for the same, made in another way. */
  private static final double SAME_SECONDS = 0.1;

  private final Project before;
  private final Media old;
  private final Media fresh;
  private final Songs songs;
  private final boolean isAsLong;

  private Renewal(Project before, Media old, Media fresh, Songs songs) {
    this.before = before;
    this.old = old;
    this.fresh = fresh;
    this.songs = songs;
    isAsLong = Math.abs(fresh.lengthFrames() - old.lengthFrames()) < before.frames(SAME_SECONDS);
  }

  /**
   * The project in which an item holds what was found in a file.
   *
   * <p>A clip that played to the old end plays to the new one, and none goes on after it. Music
   * with a fit is fitted anew; one that cannot be tailored is looped, and trimmed where that cannot
   * be either. What follows a picture on its track, and the film's own sound with it, moves up to
   * its new end. Where somebody speaks is what the fresh item says. Its credit is the fresh one's
   * when the file is another; where that lay on the Shelf already and is not placed, it goes from
   * there.
   *
   * @param fresh of the same kind; its own id is of no matter
   */
  public static Project of(Project project, String mediaId, Media fresh, Songs songs) {
    Media old = project.media(mediaId).orElseThrow();
    return new Renewal(project, old, fresh, songs).renewed();
  }

  /**
   * The project in which all clips of an item are louder, so that it is heard as loud as before.
   *
   * @param byDb may be negative
   */
  public static Project louder(Project project, String mediaId, double byDb) {
    return ClipEdits.raise(
        project, clipsOf(project, mediaId).collect(Collectors.toMap(Clip::id, c -> byDb)));
  }

  private static Stream<Clip> clipsOf(Project project, String mediaId) {
    return project.tracks().stream()
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.mediaId().equals(mediaId));
  }

  private Project renewed() {
    Project held =
        before
            .withMedia(old.id(), m -> item())
            .withEachTrack(t -> t.withClips(t.clips().stream().map(this::held).toList()));
    Project pictured = old.kind() == MediaKind.PICTURE ? withPicture(held) : held;
    Project result = pictured;
    for (Clip clip : clipsOf(pictured, old.id()).filter(c -> c.fit().isPresent()).toList()) {
      result = fitted(result, clip.id());
    }
    Project fitted = result;
    return twin()
        .filter(m -> !before.isUsed(m.id()))
        .map(m -> fitted.withoutMedia(m.id()))
        .orElse(fitted);
  }

  private Media item() {
    return new Media(
        old.id(),
        fresh.file(),
        old.kind(),
        fresh.lengthFrames(),
        fresh.hasSound(),
        fresh.pictureRate(),
        credit(),
        old.useful().flatMap(this::held),
        fresh.speech(),
        fresh.content(),
        fresh.cutShort());
  }

  private Credit credit() {
    if (fresh.file().equals(old.file())) {
      return old.credit();
    }
    return twin().map(Media::credit).filter(c -> !c.isEmpty()).orElse(fresh.credit());
  }

  /** The item that the file was on the Shelf as already. */
  private Optional<Media> twin() {
    return before.shelf().stream()
        .filter(m -> !m.id().equals(old.id()) && m.file().equals(fresh.file()))
        .findFirst();
  }

  private Optional<Span> held(Span span) {
    return span.startFrame() >= fresh.lengthFrames()
        ? Optional.empty()
        : Optional.of(new Span(span.startFrame(), Math.min(span.endFrame(), fresh.lengthFrames())));
  }

  /** A clip that plays nothing that is not there. */
  private Clip held(Clip clip) {
    if (!clip.plays(old.id()) || old.kind() == MediaKind.STILL) {
      return clip;
    }
    Clip others = clip.withOtherTakes(clip.otherTakes().stream().flatMap(this::held).toList());
    return clip.mediaId().equals(old.id()) ? reaching(others) : others;
  }

  private Stream<Take> held(Take take) {
    if (!take.mediaId().equals(old.id())) {
      return Stream.of(take);
    }
    long room = fresh.lengthFrames() - take.mediaStartFrame();
    return room < 1
        ? Stream.empty()
        : take.inside(take.startFrame(), take.startFrame() + room).stream();
  }

  private Clip reaching(Clip clip) {
    boolean seamsHold =
        isAsLong && clip.seams().stream().allMatch(s -> s.toFrame() < fresh.lengthFrames());
    boolean isGone = clip.mediaStartFrame() >= fresh.lengthFrames();
    boolean begins = isGone || (clip.fit().isPresent() && !isAsLong);
    Clip from = begins ? clip.withMediaStartFrame(0) : clip;
    Clip played = seamsHold ? from : from.withSeams(List.of());
    long longest = ClipShape.longest(played, fresh);
    boolean whole =
        clip.seams().isEmpty()
            && clip.mediaStartFrame() + clip.lengthFrames() == old.lengthFrames();
    long length = whole ? longest : Math.min(clip.lengthFrames(), longest);
    return length == played.lengthFrames()
        ? played
        : ClipShape.upTo(played, length).withFittingFades();
  }

  /** With its music clip fitted to what is there now. */
  private Project fitted(Project project, String clipId) {
    Clip clip = project.clip(clipId).orElseThrow();
    Fit fit = clip.fit().orElseThrow();
    Fit own =
        isAsLong
            ? fit
            : fit.forgetting().withProtected(0, 0).withPart(fit.part().flatMap(this::held));
    Project asked =
        project.withEachTrack(t -> t.withClip(clipId, c -> c.withFit(Optional.of(own))));
    long end = Fits.endOf(asked, clip, own);
    boolean reached = before.clip(clipId).orElseThrow().endFrame() >= end;
    boolean falls = clip.endFrame() < end && own.mode() == FitMode.TRIM;
    if (isAsLong || !reached || !falls) {
      try {
        return Fits.refine(asked, clipId, f -> f, songs);
      } catch (Problem e) {
        // It is looped.
      }
    }
    for (FitMode mode : List.of(FitMode.LOOP, FitMode.TRIM)) {
      try {
        return own.mode() == FitMode.TAILOR // which has no fades of the clip
            ? Fits.set(asked, clipId, mode, songs)
            : Fits.refine(asked, clipId, f -> f.withMode(mode), songs);
      } catch (Problem e) {
        // What is there goes on being heard, and ends where it has to.
      }
    }
    return asked;
  }

  /** With the picture's rate, its own sound, and what comes after it where it belongs. */
  private Project withPicture(Project project) {
    boolean sets = old.pictureRate().filter(before.pictureRate()::equals).isPresent();
    Project timed =
        sets && fresh.pictureRate().isPresent()
            ? project.withPictureRate(fresh.pictureRate().get())
            : project;
    Project closed = timed.withEachTrack(this::closedUp);
    if (old.hasSound() && !fresh.hasSound()) {
      Set<String> silent =
          closed.tracks().stream()
              .filter(t -> t.kind() != TrackKind.PICTURE)
              .flatMap(t -> t.clips().stream())
              .filter(c -> c.mediaId().equals(old.id()))
              .map(Clip::id)
              .collect(Collectors.toSet());
      return ClipRemoval.delete(closed, silent, false, false);
    }
    return !old.hasSound() && fresh.hasSound() ? withCameraSound(closed) : closed;
  }

  private Project withCameraSound(Project project) {
    Project result = project;
    for (Track track : project.tracksOf(TrackKind.PICTURE).toList()) {
      for (Clip picture : track.clips()) {
        if (picture.mediaId().equals(old.id())) {
          Clip sound =
              Clip.whole(fresh, picture.startFrame())
                  .withMediaId(old.id())
                  .withExtent(
                      picture.startFrame(),
                      picture.lengthFrames(),
                      picture.mediaStartFrame(),
                      List.of());
          result = Placement.addClip(result, TrackKind.CAMERA, "Camera sound", sound);
        }
      }
    }
    return result;
  }

  private Track closedUp(Track track) {
    return track.withClips(
        track.clips().stream()
            .map(c -> isOfPicture(c) ? c.withStartFrame(startAfterAll(c)) : c)
            .toList());
  }

  /** Pictures and their own sound, be it on the camera's track or the voice. */
  private boolean isOfPicture(Clip clip) {
    return before.media(clip.mediaId()).filter(m -> m.kind() == MediaKind.PICTURE).isPresent()
        || before.tracksOf(TrackKind.PICTURE).anyMatch(t -> t.clip(clip.id()).isPresent());
  }

  private long startAfterAll(Clip clip) {
    return Math.max(0, clip.startFrame() + longerBefore(clip.startFrame()));
  }

  /** By how much the pictures that ended by a time are longer now, in frames. */
  private long longerBefore(long frame) {
    return before
        .tracksOf(TrackKind.PICTURE)
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.mediaId().equals(old.id()) && c.endFrame() <= frame)
        .mapToLong(c -> reaching(c).lengthFrames() - c.lengthFrames())
        .sum();
  }
}

package hushrise.core.edit;

import hushrise.core.fit.Fits;
import hushrise.core.fit.Repeat;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/** Puts media onto the timeline where it is usually wanted. */
public final class Placement {

  /** How long a still is shown unless said otherwise, in seconds. */
  private static final double STILL_SECONDS = 5;

  private Placement() {}

  /** The project with one more item on its Shelf and its timeline. */
  public static Project add(Project project, Media media, long playheadFrame, Songs songs) {
    return place(project.withMedia(media), media.id(), playheadFrame, songs);
  }

  /**
   * Places the useful part of an item of the Shelf. A picture or a still goes after what there is
   * of the picture, and a picture brings its own sound along as camera sound. Where the picture is
   * made of stills alone, they are shown for as long as somebody speaks and music fades. Music is
   * fitted to the end of picture or narration, with fades: looped when it is shorter, trimmed when
   * it is longer or there is neither yet; music that sounds where it starts gives way to it, music
   * that has ended before stays so, and it gives way to what begins after it. Anything else just
   * starts at the time given.
   *
   * @param atFrame where on the timeline
   */
  public static Project place(Project project, String mediaId, long atFrame, Songs songs) {
    Media media = project.media(mediaId).orElseThrow();
    return switch (media.kind()) {
      case PICTURE -> placePicture(project, media);
      case STILL -> placeStill(project, media);
      case VOICE ->
          stillShown(addClip(project, TrackKind.VOICE, "Narration", clipOf(media, atFrame)));
      case EFFECT -> addClip(project, TrackKind.EFFECTS, "Effects", clipOf(media, atFrame));
      case MUSIC -> placeMusic(project, media, atFrame, songs);
    };
  }

  /**
   * The first time from one on at which the track that a kind is placed on has room for so many
   * frames; where something else is in the way, a second after it.
   */
  public static long roomFrom(Project project, TrackKind kind, long lengthFrames, long fromFrame) {
    long at = fromFrame;
    List<Clip> clips = project.firstTrack(kind).map(Track::clipsInTime).orElse(List.of());
    for (Clip clip : clips) {
      boolean inTheWay = clip.startFrame() < at + lengthFrames && clip.endFrame() > at;
      at = inTheWay ? clip.endFrame() + project.sampleRate() : at;
    }
    return at;
  }

  private static Clip clipOf(Media media, long startFrame) {
    Span part = media.usefulPart();
    return Clip.whole(media, startFrame)
        .withExtent(startFrame, part.lengthFrames(), part.startFrame(), List.of());
  }

  private static Project placePicture(Project project, Media media) {
    boolean first = project.pictureEndFrame().isEmpty();
    Project timed = first ? project.withPictureRate(media.pictureRate().orElseThrow()) : project;
    long start = project.pictureEndFrame().orElse(0);
    Project withPicture = addClip(timed, TrackKind.PICTURE, "Picture", clipOf(media, start));
    return media.hasSound()
        ? addClip(withPicture, TrackKind.CAMERA, "Camera sound", clipOf(media, start))
        : withPicture;
  }

  private static Project placeStill(Project project, Media media) {
    OptionalLong before = project.pictureEndFrame();
    long start = before.orElse(0);
    long usual = project.frames(STILL_SECONDS);
    long length = before.isPresent() ? usual : Math.max(usual, Fits.endOf(project).orElse(usual));
    return addClip(project, TrackKind.PICTURE, "Picture", Clip.ofStill(media, start, length));
  }

  /** Shows the last still for longer where the narration goes on after a picture of stills. */
  private static Project stillShown(Project project) {
    List<Clip> clips =
        project.tracksOf(TrackKind.PICTURE).flatMap(t -> t.clips().stream()).toList();
    long spoken = project.voiceTracks().mapToLong(Track::endFrame).max().orElse(0);
    Optional<Clip> last = clips.stream().max(Comparator.comparingLong(Clip::endFrame));
    if (last.isEmpty()
        || spoken <= last.get().endFrame()
        || !clips.stream().allMatch(project::isStill)) {
      return project;
    }
    long end = spoken + project.frames(Fits.FADE_OUT_SECONDS);
    return project.withEachTrack(
        t ->
            t.withClip(
                last.get().id(),
                c -> c.withExtent(c.startFrame(), end - c.startFrame(), 0, List.of())));
  }

  private static Project placeMusic(Project project, Media media, long atFrame, Songs songs) {
    Optional<Clip> before = SongChange.playingAt(project, atFrame);
    Optional<Clip> next = SongChange.nextAfter(project, atFrame);
    Clip clip = music(project, media, atFrame, next, songs);
    Clip joined = before.isPresent() ? clip.withFadeIn(Fade.NONE) : clip;
    Project given =
        before
            .map(b -> SongChange.givingWay(project, b, atFrame, songs))
            .orElseGet(() -> SongChange.endingBefore(project, atFrame));
    return addClip(
        next.filter(n -> clip.endFrame() > n.startFrame())
            .map(n -> given.withEachTrack(t -> t.withClip(n.id(), c -> c.withFadeIn(Fade.NONE))))
            .orElse(given),
        TrackKind.MUSIC,
        "Music",
        joined);
  }

  private static Clip music(
      Project project, Media media, long atFrame, Optional<Clip> next, Songs songs) {
    Clip clip = clipOf(media, atFrame);
    int rate = project.sampleRate();
    Optional<Long> until =
        next.map(n -> SongChange.endFrame(clip.endFrame(), n.startFrame(), rate));
    OptionalLong filmEnd = Fits.endOf(project);
    long end = until.orElse(filmEnd.orElse(clip.endFrame()));
    long length = end - atFrame;
    long sounds = songs.lastsUntil(media) - clip.mediaStartFrame();
    boolean longEnough =
        (filmEnd.isEmpty() ? clip.lengthFrames() : Math.min(clip.lengthFrames(), sounds)) >= length;
    boolean alone = filmEnd.isEmpty() && !longEnough;
    if (length < rate || alone) {
      return clip.withFadeIn(fade(project, Fits.FADE_IN_SECONDS, clip.lengthFrames()))
          .withFadeOut(fade(project, Fits.FADE_OUT_SECONDS, clip.lengthFrames()));
    }
    Fade out = next.isPresent() ? Fade.NONE : fade(project, Fits.FADE_OUT_SECONDS, length);
    Clip faded = clip.withFadeIn(fade(project, Fits.FADE_IN_SECONDS, length)).withFadeOut(out);
    Clip fitted =
        faded.withFit(
            Optional.of(
                Fit.of(longEnough ? FitMode.TRIM : FitMode.LOOP, atFrame)
                    .withPart(media.useful())
                    .withUntilFrame(until)));
    if (longEnough) {
      return fitted.withContent(length, List.of());
    }
    return songs.song(media).isPresent()
        ? Fits.fitted(fitted, media, songs, end, rate)
        : Repeat.toLength(faded, media.usefulPart().endFrame(), length, rate);
  }

  private static Fade fade(Project project, double seconds, long clipFrames) {
    return Fade.ofLength(Math.min(project.frames(seconds), clipFrames / 3));
  }

  /** The project with a clip on the first track of a kind, which is made when there is none. */
  static Project addClip(Project project, TrackKind kind, String name, Clip clip) {
    Optional<Track> track = project.firstTrack(kind);
    if (track.isEmpty()) {
      return TrackEdits.insert(project, Track.of(kind, name, List.of(clip)));
    }
    return project.withTrack(
        track.get().id(),
        t -> {
          List<Clip> clips = new ArrayList<>(t.clips());
          clips.add(clip);
          return t.withClips(clips);
        });
  }
}

package hushrise.core.edit;

import hushrise.core.make.FilmPlan;
import hushrise.core.make.Repeat;
import hushrise.core.project.Clip;
import hushrise.core.project.Fade;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import java.util.ArrayList;
import java.util.List;

/** Puts media onto the timeline where it is usually wanted. */
public final class Placement {

  private static final List<TrackKind> ORDER =
      List.of(
          TrackKind.PICTURE, TrackKind.VOICE, TrackKind.MUSIC, TrackKind.EFFECTS, TrackKind.CAMERA);

  private Placement() {}

  /**
   * The project with one more item on its Shelf and its timeline. A picture starts the film and
   * brings its own sound along as camera sound; music starts with the film and is cut or repeated
   * to its length, with fades; a voice or an effect goes to the playhead.
   */
  public static Project add(Project project, Media media, long playheadFrame) {
    Project with = project.withMedia(media);
    return switch (media.kind()) {
      case PICTURE -> addPicture(with, media);
      case VOICE -> addClip(with, TrackKind.VOICE, "Narration", Clip.whole(media, playheadFrame));
      case EFFECT -> addClip(with, TrackKind.EFFECTS, "Effects", Clip.whole(media, playheadFrame));
      case MUSIC -> addClip(with, TrackKind.MUSIC, "Music", musicClip(with, media));
    };
  }

  private static Project addPicture(Project project, Media media) {
    Project timed = project.withPictureRate(media.pictureRate().orElseThrow());
    Clip whole =
        Clip.whole(media, timed.firstTrack(TrackKind.PICTURE).map(Track::endFrame).orElse(0L));
    Project withPicture = addClip(timed, TrackKind.PICTURE, "Picture", whole);
    return media.hasSound()
        ? addClip(
            withPicture, TrackKind.CAMERA, "Camera sound", Clip.whole(media, whole.startFrame()))
        : withPicture;
  }

  private static Clip musicClip(Project project, Media media) {
    long start = project.firstTrack(TrackKind.MUSIC).map(Track::endFrame).orElse(0L);
    long film = project.pictureClip().map(Clip::endFrame).orElse(0L);
    long length = film > start ? film - start : media.lengthFrames();
    Clip clip =
        Repeat.toLength(
            Clip.whole(media, start), media.lengthFrames(), length, project.sampleRate());
    return clip.withFadeIn(fade(project, FilmPlan.FADE_IN_SECONDS, length))
        .withFadeOut(fade(project, FilmPlan.FADE_OUT_SECONDS, length));
  }

  private static Fade fade(Project project, double seconds, long clipFrames) {
    return Fade.ofLength(Math.min(project.frames(seconds), clipFrames / 3));
  }

  private static Project addClip(Project project, TrackKind kind, String name, Clip clip) {
    if (project.firstTrack(kind).isPresent()) {
      String id = project.firstTrack(kind).get().id();
      return project.withTrack(
          id,
          t -> {
            List<Clip> clips = new ArrayList<>(t.clips());
            clips.add(clip);
            return t.withClips(clips);
          });
    }
    List<Track> tracks = new ArrayList<>(project.tracks());
    int at = 0;
    while (at < tracks.size() && ORDER.indexOf(tracks.get(at).kind()) <= ORDER.indexOf(kind)) {
      at++;
    }
    tracks.add(at, Track.of(kind, name, List.of(clip)));
    return project.withTracks(tracks);
  }
}

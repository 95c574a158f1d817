package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Edits of tracks: each is a function from project to project. */
public final class TrackEdits {

  private static final List<TrackKind> ORDER =
      List.of(
          TrackKind.PICTURE, TrackKind.VOICE, TrackKind.MUSIC, TrackKind.EFFECTS, TrackKind.CAMERA);

  /** How tracks lie over one another unless a person moves them. */
  public static final Comparator<Track> USUAL_ORDER =
      Comparator.comparingInt(t -> ORDER.indexOf(t.kind()));

  private TrackEdits() {}

  /** Adds an empty track under the last one of its kind, or where its kind usually lies. */
  public static Project add(Project project, TrackKind kind, String name) {
    return insert(project, Track.of(kind, unused(project, name), List.of()));
  }

  /** Adds a track under the last one of its kind, or where its kind usually lies. */
  static Project insert(Project project, Track track) {
    List<Track> tracks = new ArrayList<>(project.tracks());
    int at = 0;
    for (int i = 0; i < tracks.size(); i++) {
      if (USUAL_ORDER.compare(tracks.get(i), track) <= 0) {
        at = i + 1;
      }
    }
    tracks.add(at, track);
    return project.withTracks(tracks);
  }

  private static String unused(Project project, String name) {
    String free = name;
    for (int number = 2; isUsed(project, free); number++) {
      free = name + " " + number;
    }
    return free;
  }

  private static boolean isUsed(Project project, String name) {
    return project.tracks().stream().anyMatch(t -> t.name().equals(name));
  }

  /** Removes a track with everything on it. */
  public static Project remove(Project project, String trackId) {
    return project.withTracks(
        project.tracks().stream().filter(t -> !t.id().equals(trackId)).toList());
  }

  /** Names a track; a blank name changes nothing. */
  public static Project rename(Project project, String trackId, String name) {
    return name.isBlank() ? project : project.withTrack(trackId, t -> t.withName(name.strip()));
  }

  /** Moves a track up (negative) or down among the tracks; it stops at the ends. */
  public static Project reorder(Project project, String trackId, int by) {
    List<Track> tracks = new ArrayList<>(project.tracks());
    int from = tracks.indexOf(project.track(trackId).orElseThrow());
    Track track = tracks.remove(from);
    tracks.add(Math.clamp(from + by, 0, tracks.size()), track);
    return project.withTracks(tracks);
  }

  /** Makes a track's row so many pixels high, 30 to 400; 0 for as usual. */
  public static Project resize(Project project, String trackId, int pixels) {
    int held = pixels == 0 ? 0 : Math.clamp(pixels, 30, 400);
    return project.withTrack(trackId, t -> t.withRowHeight(held));
  }

  /** Places a track between left (-1) and right (1). */
  public static Project setPan(Project project, String trackId, double pan) {
    return project.withTrack(trackId, t -> t.withPan(pan));
  }

  /** Mutes all camera sound, or brings it back. */
  public static Project muteCameras(Project project, boolean muted) {
    return project.withEachTrack(t -> t.kind() == TrackKind.CAMERA ? t.withMuted(muted) : t);
  }

  /** Whether there is camera sound and all of it is muted. */
  public static boolean areCamerasMuted(Project project) {
    return project.tracksOf(TrackKind.CAMERA).findAny().isPresent()
        && project.tracksOf(TrackKind.CAMERA).allMatch(Track::muted);
  }
}

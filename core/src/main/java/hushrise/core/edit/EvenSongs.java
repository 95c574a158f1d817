package hushrise.core.edit;

import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Brings songs that follow one another to one loudness: gated loudness over what is played of them,
 * before all that a track does, changed by clip gain alone and never so far that a sample clips.
 */
public final class EvenSongs {

  /** A song that differs by more from the one before is noticed, in LU. */
  public static final double MOST_LU = 3;

  /** What starts later after another's end does not follow it, in seconds. */
  private static final double FOLLOWS_SECONDS = 5;

  /** What is shorter is a stroke rather than a song, in seconds. */
  private static final double SONG_SECONDS = 5;

  private EvenSongs() {}

  /**
   * A song that follows another.
   *
   * @param louderLu by how much it is louder than that; may be negative
   */
  public record Change(Track track, Clip before, Clip after, double louderLu) {}

  /** Where on the heard tracks songs follow one another, in order of time on each. */
  public static List<Change> changes(Project project, LoudnessLibrary library) {
    List<Change> changes = new ArrayList<>();
    for (Track track : project.tracks()) {
      if (track.kind() == TrackKind.MUSIC && project.heardTracks().test(track)) {
        List<Clip> songs =
            track.clipsInTime().stream()
                .filter(c -> c.lengthFrames() >= project.frames(SONG_SECONDS))
                .toList();
        for (int i = 1; i < songs.size(); i++) {
          Clip before = songs.get(i - 1);
          Clip after = songs.get(i);
          double louder = lufs(project, after, library) - lufs(project, before, library);
          boolean follows =
              after.startFrame() - before.endFrame() < project.frames(FOLLOWS_SECONDS);
          if (follows && Double.isFinite(louder)) {
            changes.add(new Change(track, before, after, louder));
          }
        }
      }
    }
    return changes;
  }

  /** Brings a song to the loudness of the one before it, or as near as it gets without clipping. */
  public static Project asBefore(Project project, Change change, LoudnessLibrary library) {
    return louder(project, change.after().id(), -change.louderLu(), library);
  }

  /** Brings every song that differs noticeably from the one before it to the loudness of that. */
  public static Project even(Project project, LoudnessLibrary library) {
    Project result = project;
    for (Change change : changes(project, library)) {
      double turned = gainDb(result, change.before()) - change.before().gainDb();
      double louder = change.louderLu() - turned;
      if (Math.abs(louder) > MOST_LU) {
        result = louder(result, change.after().id(), -louder, library);
      }
    }
    return result;
  }

  private static double gainDb(Project project, Clip clip) {
    return project.clip(clip.id()).orElseThrow().gainDb();
  }

  private static Project louder(Project project, String id, double db, LoudnessLibrary library) {
    double by = db > 0 ? Math.clamp(Headroom.of(project, library).db(id), 0, db) : db;
    return ClipEdits.raise(project, Map.of(id, by));
  }

  private static double lufs(Project project, Clip clip, LoudnessLibrary library) {
    Media media = project.media(clip.mediaId()).orElseThrow();
    LoudnessSteps steps = library.steps(media);
    long first = clip.mediaStartFrame();
    long last = clip.mediaFrameAt(clip.lengthFrames() - 1);
    for (Seam seam : clip.seams()) {
      first = Math.min(first, seam.toFrame());
      last = Math.max(last, seam.fromFrame());
    }
    int rate = project.sampleRate();
    int to = Math.min(steps.count(), LoudnessSteps.nearestStep(last, rate));
    return clip.gainDb() + steps.lufs(LoudnessSteps.nearestStep(first, rate), to);
  }
}

package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/** The picture of a part of a project, as a project of its own. */
public final class PictureRange {

  private PictureRange() {}

  /** A project with nothing but the picture of a part, which begins at its start. */
  public static Project of(Project project, Span part) {
    List<Track> tracks =
        project.tracksOf(TrackKind.PICTURE).map(t -> t.withClips(clips(t, part))).toList();
    return project.withTracks(tracks);
  }

  private static List<Clip> clips(Track track, Span part) {
    List<Clip> clips = new ArrayList<>();
    for (Clip clip : track.clips()) {
      long from = Math.max(clip.startFrame(), part.startFrame());
      long to = Math.min(clip.endFrame(), part.endFrame());
      if (from < to) {
        clips.add(
            clip.withExtent(
                from - part.startFrame(),
                to - from,
                clip.mediaStartFrame() + from - clip.startFrame(),
                List.of()));
      }
    }
    return clips;
  }
}

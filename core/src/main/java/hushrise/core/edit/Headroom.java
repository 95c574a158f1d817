package hushrise.core.edit;

import hushrise.core.loudness.ClipPeaks;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Project;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** By how much clips may be raised before one of their samples passes {@link #HIGHEST_DBFS}. */
final class Headroom {

  /** Raised sound is to stay under this. */
  private static final double HIGHEST_DBFS = -1;

  private record Placed(Clip clip, ClipPeaks peaks) {}

  private final Map<String, Placed> byClip = new HashMap<>();

  private Headroom() {}

  static Headroom of(Project project, LoudnessLibrary library) {
    Headroom room = new Headroom();
    for (Track track : project.tracks()) {
      // What lowers the level may go away again: it is no room.
      Track bare =
          track
              .withHushes(List.of())
              .withLine(LevelLine.EMPTY)
              .withLevelDb(Math.max(0, track.levelDb()));
      ClipPeaks peaks = ClipPeaks.of(project, bare, library);
      track.clips().forEach(c -> room.byClip.putIfAbsent(c.id(), new Placed(c, peaks)));
    }
    return room;
  }

  /**
   * A clip's room in dB; negative when it is too loud already.
   *
   * @throws java.util.NoSuchElementException when the project has no such clip
   */
  double db(String clipId) {
    Placed placed = Optional.ofNullable(byClip.get(clipId)).orElseThrow();
    return HIGHEST_DBFS - placed.peaks().highestDb(placed.clip());
  }
}

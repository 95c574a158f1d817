package hushrise.core.edit;

import hushrise.core.loudness.ClipPeaks;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Brings clips to the loudness that is usual for their kind, by gain alone, with their peaks under
 * the hot mark after all levels.
 *
 * <p>What speaks is measured over the passages it speaks, as it is heard; everything else over the
 * whole clip (gated, ITU-R BS.1770), before its line, rises and hushes, which are there to differ.
 */
public final class SafeLevel {

  /** Peaks stay this far under the mark, for what lies between samples. */
  private static final double UNDER_DB = 0.3;

  private SafeLevel() {}

  /**
   * The numbers used.
   *
   * @param usualLufs the loudness usual for each kind
   * @param hotDb peaks stay under this, in dBFS
   */
  public record Rule(Map<TrackKind, Double> usualLufs, double hotDb) {

    /**
     * Narration at -20 LUFS leaves its peaks room and stands well over a bed of -24; effects come
     * between; camera sound is there to be felt.
     */
    public static final Rule DEFAULT =
        new Rule(
            Map.of(
                TrackKind.VOICE, -20.0,
                TrackKind.MUSIC, -24.0,
                TrackKind.EFFECTS, -22.0,
                TrackKind.CAMERA, -32.0),
            -6);

    public Rule {
      usualLufs = Map.copyOf(usualLufs);
    }

    public double lufs(Track track) {
      return usualLufs.getOrDefault(track.isVoice() ? TrackKind.VOICE : track.kind(), -24.0);
    }

    public Rule withLufs(TrackKind kind, double lufs) {
      Map<TrackKind, Double> changed = new EnumMap<>(usualLufs);
      changed.put(kind, lufs);
      return new Rule(changed, hotDb);
    }

    public Rule withHotDb(double db) {
      return new Rule(usualLufs, db);
    }
  }

  /** A project with clips brought to a safe level; silent ones and pictures stay as they are. */
  public static Project of(
      Project project, Set<String> clipIds, Energies energies, LoudnessLibrary library, Rule rule) {
    Map<String, Double> spoken = EvenVoices.loudness(energies);
    Map<String, Double> byDb = new HashMap<>();
    for (Track track : project.tracks()) {
      // A hush may go away again: it is no room.
      ClipPeaks peaks = ClipPeaks.of(project, track.withHushes(List.of()), library);
      for (Clip clip : track.clips()) {
        boolean sounds = project.media(clip.mediaId()).filter(Media::hasSound).isPresent();
        if (track.kind().sounds() && sounds && clipIds.contains(clip.id())) {
          Double asSpoken = track.isVoice() ? spoken.get(clip.id()) : null;
          double lufs = asSpoken != null ? asSpoken : lufs(project, track, clip, library);
          double by = rule.lufs(track) - lufs;
          double room = rule.hotDb() - UNDER_DB - peaks.highestDb(clip);
          if (Double.isFinite(Math.min(by, room))) {
            byDb.put(clip.id(), Math.min(by, room));
          }
        }
      }
    }
    return ClipEdits.raise(project, byDb);
  }

  /** Gated loudness of a clip's content at its gain and its track's level, in LUFS. */
  private static double lufs(Project project, Track track, Clip clip, LoudnessLibrary library) {
    LoudnessSteps steps = library.steps(project.media(clip.mediaId()).orElseThrow());
    int rate = project.sampleRate();
    int count = Math.max(1, LoudnessSteps.stepsIn(clip.lengthFrames(), rate));
    double lufs =
        GatedLoudness.lufs(
            step -> {
              double place =
                  clip.mediaFrameAt(LoudnessSteps.frameOf(step, rate))
                      * (double) LoudnessSteps.PER_SECOND
                      / rate;
              return steps.energyAt(0, place + 0.5) + steps.energyAt(1, place + 0.5);
            },
            0,
            count);
    return lufs + clip.gainDb() + track.levelDb();
  }
}

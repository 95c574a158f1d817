package hushrise.core.ear;

import hushrise.core.edit.FadeEdits;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.EnergySteps;
import java.util.Comparator;
import java.util.Optional;
import java.util.stream.Stream;

/** What several rules ask about music. */
final class MusicClips {

  /** A place this much under a track's usual loudness counts as quiet, in LU. */
  private static final double QUIET_LU = 15;

  private static final double SILENT_LUFS = -60;

  private MusicClips() {}

  static Stream<Track> heardMusic(Project project) {
    return project
        .tracksOf(TrackKind.MUSIC)
        .filter(project.heardTracks())
        .filter(t -> !t.clips().isEmpty());
  }

  /** The clip that sounds last of all music. */
  static Optional<Clip> last(Project project) {
    return heardMusic(project)
        .flatMap(t -> t.clips().stream())
        .max(Comparator.comparingLong(Clip::endFrame));
  }

  /**
   * Whether a track is loud over some steps of 10 ms, seen from a clip's own loudness there.
   *
   * @param from the first step
   */
  static boolean isLoud(Heard heard, Track track, Clip clip, int from, int steps) {
    EnergySteps energy = heard.energies().track(track.id());
    double sum = 0;
    for (int i = from; i < from + steps; i++) {
      sum += i >= 0 && i < energy.count() ? energy.at(i) : 0;
    }
    double there = GatedLoudness.lufs(sum / steps);
    return there > SILENT_LUFS && there > heard.energies().lufs(energy, clip.span()) - QUIET_LU;
  }

  /** Sets a clip's fade-out, shorter where the clip has no room for it. */
  static Project fadedOut(Project project, String clipId, double seconds) {
    return project
        .clip(clipId)
        .map(
            c -> {
              long room = Math.max(0, c.lengthFrames() - c.fadeIn().visibleFrames());
              return FadeEdits.setOut(project, clipId, Math.min(room, project.frames(seconds)));
            })
        .orElse(project);
  }
}

package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.level.Pan;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Predicate;

/**
 * By how much each track goes into the mix as a whole: its level, its pan, and whether it is heard.
 * What changes along its line is not in it, nor is the level of the mix. A track that is not in the
 * project has nothing.
 */
record TrackFactors(Map<String, Factor> byTrack) {

  /** The amplitude factors of both channels. */
  record Factor(float left, float right) {

    static final Factor NONE = new Factor(0, 0);
  }

  static TrackFactors of(Project project) {
    Predicate<Track> heard = project.heardTracks();
    Map<String, Factor> factors = new HashMap<>();
    for (Track track : project.tracks()) {
      if (heard.test(track) && track.levelDb() > Decibels.OFF_DB) {
        double level = Decibels.toFactor(track.levelDb());
        factors.put(
            track.id(),
            new Factor(
                (float) (level * Pan.left(track.pan())), (float) (level * Pan.right(track.pan()))));
      }
    }
    return new TrackFactors(Map.copyOf(factors));
  }

  Factor of(String track) {
    return byTrack.getOrDefault(track, Factor.NONE);
  }

  /**
   * The factors of some tracks in one channel.
   *
   * @param channel 0 for the left, 1 for the right
   */
  float[] of(String[] tracks, int channel) {
    float[] factors = new float[tracks.length];
    for (int i = 0; i < tracks.length; i++) {
      Factor factor = of(tracks[i]);
      factors[i] = channel == 0 ? factor.left() : factor.right();
    }
    return factors;
  }
}

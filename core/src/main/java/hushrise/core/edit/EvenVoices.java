package hushrise.core.edit;

import hushrise.core.loudness.GatedLoudness;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Project;
import hushrise.core.separation.Energies;
import hushrise.core.separation.EnergySteps;
import hushrise.core.speech.Passages;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Brings voice clips to one loudness: gated loudness over the passages they speak, as they are
 * heard, changed by clip gain alone and never so far that a sample passes -1 dBFS.
 */
public final class EvenVoices {

  /** Voices further apart than this are noticed, in LU. */
  public static final double MOST_LU = 2;

  private EvenVoices() {}

  /**
   * The loudness of each clip on the heard voice tracks that speaks, in LUFS, by clip id, in order
   * of time.
   */
  public static Map<String, Double> loudness(Energies energies) {
    Project project = energies.project();
    Map<String, List<Passages.Passage>> passages = new LinkedHashMap<>();
    for (Passages.Passage p : Passages.each(project, project.heardTracks())) {
      passages.computeIfAbsent(p.clipId(), id -> new ArrayList<>()).add(p);
    }
    Map<String, Double> loudness = new LinkedHashMap<>();
    passages.forEach(
        (clipId, spoken) -> {
          EnergySteps energy = energies.track(spoken.getFirst().trackId());
          int[] steps =
              spoken.stream()
                  .flatMapToInt(
                      p ->
                          IntStream.range(
                              energies.stepAt(p.span().startFrame()),
                              energies.stepAt(p.span().endFrame())))
                  .toArray();
          double lufs = GatedLoudness.lufs(i -> energy.at(steps[i]), 0, steps.length);
          if (Double.isFinite(lufs)) {
            loudness.put(clipId, lufs);
          }
        });
    return loudness;
  }

  /** How far the loudest lies above the softest, in LU; 0 for fewer than two. */
  public static double apart(Map<String, Double> loudness) {
    return loudness.size() < 2
        ? 0
        : Collections.max(loudness.values()) - Collections.min(loudness.values());
  }

  /**
   * Brings clips to the mean of their loudness; where one of them would clip there, to the highest
   * loudness that none clips at.
   */
  public static Project even(
      Project project, Set<String> clipIds, Energies energies, LoudnessLibrary library) {
    Map<String, Double> loudness = new HashMap<>(loudness(energies));
    loudness.keySet().retainAll(clipIds);
    double mean =
        loudness.values().stream().mapToDouble(Double::doubleValue).average().orElse(Double.NaN);
    Headroom room = Headroom.of(project, library);
    double highest =
        loudness.entrySet().stream()
            .mapToDouble(e -> e.getValue() + room.db(e.getKey()))
            .min()
            .orElse(Double.NaN);
    double reached = Math.min(mean, highest);
    loudness.replaceAll((id, lufs) -> reached - lufs);
    return ClipEdits.raise(project, loudness);
  }

  /** Brings one clip to the mean loudness of the others, or as near as it gets without clipping. */
  public static Project asOthers(
      Project project, String clipId, Energies energies, LoudnessLibrary library) {
    Map<String, Double> loudness = loudness(energies);
    Double own = loudness.remove(clipId);
    if (own == null || loudness.isEmpty()) {
      return project;
    }
    double mean = loudness.values().stream().mapToDouble(Double::doubleValue).average().orElse(0);
    double room = Headroom.of(project, library).db(clipId);
    return ClipEdits.raise(project, Map.of(clipId, Math.min(mean - own, room)));
  }
}

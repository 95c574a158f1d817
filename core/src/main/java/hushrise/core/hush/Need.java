package hushrise.core.hush;

import hushrise.core.loudness.GatedLoudness;
import hushrise.core.project.level.HushRule;
import hushrise.core.separation.EnergySteps;
import java.util.Arrays;
import java.util.List;

/**
 * How deep tracks must go under one passage.
 *
 * <p>Each track by itself: {@code min(0, voice - track - wanted)}. Then, as the sum of everything
 * counts, those that want least (the music) further by one amount, found by halving.
 *
 * @param depthsDb one for each track, at most 0
 * @param voiceLufs the voice
 * @param backgroundLufs everything under it, before any of these depths
 * @param othersTooLoud whether what has no rule alone leaves less than the wanted separation
 */
record Need(List<Double> depthsDb, double voiceLufs, double backgroundLufs, boolean othersTooLoud) {

  private static final double DEEPEST_DB = -60;
  private static final int HALVINGS = 24;

  /** Where others are too loud, a track goes down until it adds no more than this to them. */
  private static final double ADDED_LU = 0.4;

  /**
   * @param from the passage's first step
   * @param to the step after its last
   * @param voice energies of the voice
   * @param others energies of what has no rule
   * @param tracks energies of each track with a rule, before any hush
   * @param rules the tracks' rules
   */
  static Need of(
      int from,
      int to,
      EnergySteps voice,
      EnergySteps others,
      List<EnergySteps> tracks,
      List<HushRule> rules) {
    double v = GatedLoudness.lufs(voice, from, to);
    double[] depths = new double[tracks.size()];
    double all = total(from, to, others, tracks, depths);
    if (!Double.isFinite(v)) {
      return new Need(listed(depths), v, all, false);
    }
    double wanted = Double.POSITIVE_INFINITY;
    for (int t = 0; t < depths.length; t++) {
      HushRule rule = rules.get(t);
      double alone = v - GatedLoudness.lufs(tracks.get(t), from, to) - rule.separationLu();
      boolean fixed = rule.fixedDepthDb().isPresent();
      depths[t] =
          fixed
              ? Math.min(0, rule.fixedDepthDb().getAsDouble())
              : Double.isFinite(alone) ? Math.clamp(alone, rule.deepestDb(), 0) : 0;
      wanted = fixed ? wanted : Math.min(wanted, rule.separationLu());
    }
    if (!Double.isFinite(wanted) || v - total(from, to, others, tracks, depths) >= wanted) {
      return new Need(listed(depths), v, all, false);
    }
    double ofOthers = GatedLoudness.lufs(others, from, to);
    boolean hopeless = v - ofOthers < wanted + 0.05;
    double reach = hopeless ? ofOthers + ADDED_LU : v - wanted;
    double low = DEEPEST_DB;
    double high = 0;
    for (int i = 0; i < HALVINGS; i++) {
      double middle = (low + high) / 2;
      double[] deeper = lowered(depths, rules, wanted, middle);
      if (total(from, to, others, tracks, deeper) <= reach) {
        low = middle;
      } else {
        high = middle;
      }
    }
    return new Need(listed(lowered(depths, rules, wanted, low)), v, all, hopeless);
  }

  private static List<Double> listed(double[] values) {
    return Arrays.stream(values).boxed().toList();
  }

  private static double[] lowered(
      double[] depths, List<HushRule> rules, double leastLu, double byDb) {
    double[] result = depths.clone();
    for (int t = 0; t < result.length; t++) {
      if (rules.get(t).fixedDepthDb().isEmpty() && rules.get(t).separationLu() <= leastLu) {
        result[t] = Math.max(rules.get(t).deepestDb(), depths[t] + byDb);
      }
    }
    return result;
  }

  private static double total(
      int from, int to, EnergySteps others, List<EnergySteps> tracks, double[] depthsDb) {
    double[] factors = new double[depthsDb.length];
    for (int t = 0; t < factors.length; t++) {
      factors[t] = Math.pow(10, depthsDb[t] / 10);
    }
    return GatedLoudness.lufs(
        i -> {
          double sum = others.at(i);
          for (int t = 0; t < factors.length; t++) {
            sum += factors[t] * tracks.get(t).at(i);
          }
          return sum;
        },
        from,
        to);
  }
}

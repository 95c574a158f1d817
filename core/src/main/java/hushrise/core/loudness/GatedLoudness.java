package hushrise.core.loudness;

/** Gated loudness (ITU-R BS.1770-5) reckoned from energies in steps of 10 ms. */
public final class GatedLoudness {

  private static final int BLOCK_STEPS = 40;
  private static final int HOP_STEPS = 10;
  private static final double ABSOLUTE_GATE = LoudnessMeter.meanSquare(-70);

  private GatedLoudness() {}

  /** The energy of each step of a programme. */
  @FunctionalInterface
  public interface Energy {
    double at(int step);
  }

  /**
   * The loudness over steps in LUFS, as {@link LoudnessMeter#integratedLufs} gives it; a stretch
   * under 400 ms is taken as a whole. Minus infinity for silence.
   */
  public static double lufs(Energy energy, int from, int to) {
    int count = (to - from - BLOCK_STEPS) / HOP_STEPS + 1;
    if (to - from < BLOCK_STEPS) {
      double sum = 0;
      for (int i = from; i < to; i++) {
        sum += energy.at(i);
      }
      return to <= from ? Double.NEGATIVE_INFINITY : LoudnessMeter.lufs(sum / (to - from));
    }
    double[] hops = new double[count + BLOCK_STEPS / HOP_STEPS - 1];
    for (int h = 0; h < hops.length; h++) {
      for (int i = 0; i < HOP_STEPS; i++) {
        hops[h] += energy.at(from + h * HOP_STEPS + i);
      }
    }
    double[] blocks = new double[count];
    for (int b = 0; b < count; b++) {
      for (int h = 0; h < BLOCK_STEPS / HOP_STEPS; h++) {
        blocks[b] += hops[b + h] / BLOCK_STEPS;
      }
    }
    double absolute = LoudnessMeter.meanAbove(blocks, count, ABSOLUTE_GATE);
    return LoudnessMeter.lufs(
        LoudnessMeter.meanAbove(blocks, count, Math.max(absolute / 10, ABSOLUTE_GATE)));
  }

  /** The loudness of a mean energy in LUFS. */
  public static double lufs(double energy) {
    return LoudnessMeter.lufs(energy);
  }
}

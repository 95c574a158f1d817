package hushrise.core.fit;

/**
 * Where bars begin: the grouping of three or four beats whose first beats stand out most by a
 * change of harmony and a strong onset.
 *
 * @param beatsPerBar 3 or 4
 * @param firstBar the first beat that begins a bar
 */
record Meter(int beatsPerBar, int firstBar) {

  static Meter of(float[][] chroma, float[][] rhythm) {
    double[] accent = new double[chroma.length];
    double mean = 0;
    for (int i = 1; i < accent.length; i++) {
      accent[i] = 2 * (1 - cosine(chroma[i - 1], chroma[i])) + 0.1 * rhythm[i][0];
      mean += accent[i] / accent.length;
    }
    Meter best = new Meter(4, 0);
    double bestScore = Double.NEGATIVE_INFINITY;
    for (int beats : new int[] {4, 3}) {
      for (int phase = 0; phase < beats; phase++) {
        double sum = 0;
        int count = 0;
        for (int i = phase; i < accent.length; i += beats) {
          sum += accent[i] - mean;
          count++;
        }
        double score = count == 0 ? 0 : sum / count;
        if (score > bestScore + 1e-9) {
          bestScore = score;
          best = new Meter(beats, phase);
        }
      }
    }
    return best;
  }

  /** The cosine of two lists of pitch classes of length 1. */
  private static double cosine(float[] a, float[] b) {
    double dot = 0;
    for (int p = 0; p < a.length; p++) {
      dot += a[p] * b[p];
    }
    return dot;
  }
}

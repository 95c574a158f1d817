package hushrise.core.fit;

import java.util.Arrays;

/**
 * How alike a song sounds around any two of its edges: what a jump from one to the other would
 * cost.
 *
 * <p>The distance of two stretches joins harmony, timbre, rhythm and level. A jump is judged along
 * the diagonal of the self-similarity matrix (J. Foote, "Visualizing Music and Audio using
 * Self-Similarity", 1999): four stretches before and four after, the nearest counting most, so that
 * what leads up to the jump and what follows match too. Two things that an ear notices at once cost
 * extra: a change of harmony across the jump that is larger than is usual between neighbours, and a
 * step in level, over a bar.
 */
final class Likeness {

  /** How the cost of a jump becomes a score. */
  private static final double STEEPNESS = 2;

  /** A change of harmony this many times the usual one is heard as one. */
  private static final double MOST_CHANGE = 1.4;

  private static final double MOST_STEP_DB = 0.8;
  private static final int BAR = 4;

  private static final double[] WEIGHTS = {1, 0.7, 0.5, 0.4};

  private final SongAnalysis song;
  private final float[][] distance;
  private final float[][] costs;
  private final double[] barLevelDb;
  private final double usualChange;

  Likeness(SongAnalysis song) {
    this.song = song;
    int n = song.stretches();
    distance = new float[n][n];
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < i; j++) {
        distance[i][j] = between(i, j);
        distance[j][i] = distance[i][j];
      }
    }
    double[] changes = new double[Math.max(1, n - 1)];
    for (int i = 1; i < n; i++) {
      changes[i - 1] = harmonicChange(i - 1, i);
    }
    Arrays.sort(changes);
    usualChange = changes[changes.length / 2];
    barLevelDb = new double[n];
    Arrays.setAll(barLevelDb, this::barLevelDb);
    costs = new float[n][n];
    for (int from = 1; from < n; from++) {
      for (int to = 1; to < n; to++) {
        costs[from][to] = (float) workedOut(from, to);
      }
    }
  }

  /** The median change of harmony between neighbouring stretches, 0 to 1. */
  double usualChange() {
    return usualChange;
  }

  /** The change of harmony from one stretch to another, 0 (none) to 1. */
  double harmonicChange(int from, int to) {
    return 1 - cosine(song.chroma()[from], song.chroma()[to]);
  }

  private float between(int i, int j) {
    double timbre = 0;
    for (int k = 0; k < song.timbre()[i].length; k++) {
      double step = song.timbre()[i][k] - song.timbre()[j][k];
      timbre += step * step;
    }
    timbre = Math.sqrt(timbre / (2 * song.timbre()[i].length));
    double level = Math.abs(song.levelDb()[i] - song.levelDb()[j]) / 6;
    double rhythm = song.hasBeat() ? 1 - cosine(song.rhythm()[i], song.rhythm()[j]) : 0;
    return (float)
        (0.4 * Math.min(1, 2 * harmonicChange(i, j))
            + 0.3 * Math.min(1, timbre)
            + 0.15 * Math.min(1, level)
            + 0.15 * rhythm);
  }

  static double cosine(float[] a, float[] b) {
    double dot = 0;
    double aa = 1e-9;
    double bb = 1e-9;
    for (int i = 0; i < a.length; i++) {
      dot += a[i] * b[i];
      aa += a[i] * a[i];
      bb += b[i] * b[i];
    }
    return Math.clamp(dot / Math.sqrt(aa * bb), 0, 1);
  }

  /**
   * What it costs to play up to one edge and go on at another; 0 where nobody could tell.
   *
   * @param from the edge up to which it plays, 1 to the last inner edge
   * @param to the edge that goes on, likewise
   */
  double cost(int from, int to) {
    return costs[from][to];
  }

  private double workedOut(int from, int to) {
    double sum = 0;
    double weights = 0;
    int n = song.stretches();
    for (int k = 0; k < WEIGHTS.length; k++) {
      if (from + k < n && to + k < n) {
        sum += WEIGHTS[k] * distance[from + k][to + k];
        weights += WEIGHTS[k];
      }
      if (from - 1 - k >= 0 && to - 1 - k >= 0) {
        sum += WEIGHTS[k] * distance[from - 1 - k][to - 1 - k];
        weights += WEIGHTS[k];
      }
    }
    return sum / weights + harmonyExcess(from, to) + levelStep(from, to);
  }

  private double harmonyExcess(int from, int to) {
    double excess = harmonicChange(from - 1, to) - MOST_CHANGE * Math.max(usualChange, 0.01);
    return excess > 0 ? 2 + excess : 0;
  }

  private double levelStep(int from, int to) {
    double stepDb = Math.abs(barLevelDb[from] - barLevelDb[to]);
    return stepDb > MOST_STEP_DB ? 0.3 + 0.08 * stepDb : 0.08 * stepDb;
  }

  /** The mean power of a bar from an edge on, in dB. */
  private double barLevelDb(int edge) {
    double power = 0;
    int last = Math.min(song.stretches(), edge + BAR);
    for (int i = edge; i < last; i++) {
      power += Math.pow(10, song.levelDb()[i] / 10);
    }
    return 10 * Math.log10(power / Math.max(1, last - edge) + 1e-10);
  }

  /** A cost as a score: 1 for none, towards 0 for much. */
  static double scoreOf(double cost) {
    return Math.exp(-STEEPNESS * Math.max(0, cost));
  }
}

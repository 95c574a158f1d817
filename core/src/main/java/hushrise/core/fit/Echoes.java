package hushrise.core.fit;

/**
 * Where a song is like itself: for each lag the places at which what is heard there is most like
 * what is heard that much later.
 *
 * @param perSecond in which all lags and places are counted
 * @param lags of each echo, between two counts where that is nearest
 * @param places of each echo: the earlier of both
 * @param distances of each echo, 0 where both are the same
 * @param usual how far random places of the song are apart: the distances at {@link #PARTS}
 */
@SuppressWarnings("ArrayRecordComponent") // handed on, never compared
public record Echoes(int perSecond, float[] lags, int[] places, float[] distances, float[] usual) {

  /** The parts of all pairs of places that are no further apart than the distances kept. */
  static final double[] PARTS = {0.0005, 0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1};

  private static final double REPEATING = 0.4;
  private static final double NOTHING_DB = 2;

  public int size() {
    return lags.length;
  }

  /**
   * Whether something in the song comes again: its nearest places are a good deal nearer to one
   * another than places usually are. Speech, ambience and free playing have no such places.
   */
  public boolean repeats() {
    float nearest = Float.POSITIVE_INFINITY;
    for (float d : distances) {
      nearest = Math.min(nearest, d);
    }
    float median = usual[usual.length - 2];
    return nearest < REPEATING * median || nearest < NOTHING_DB;
  }

  /** Which part of all pairs of places is at least as near as an echo, 0 to 1. */
  double rank(int echo) {
    double d = distances[echo];
    double below = 0;
    double partBelow = 0;
    for (int i = 0; i < usual.length; i++) {
      if (d <= usual[i]) {
        double along = usual[i] > below ? (d - below) / (usual[i] - below) : 1;
        return partBelow + along * (PARTS[i] - partBelow);
      }
      below = usual[i];
      partBelow = PARTS[i];
    }
    return 1;
  }
}

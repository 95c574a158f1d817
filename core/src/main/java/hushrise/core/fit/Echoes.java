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

  /** Under this distance both sides are the same recording. */
  private static final double NOTHING_DB = 2;

  /** What a rank costs: its square root, so that the nearest ones can be told apart. */
  private static final double COST_OF_RANK = 6;

  /** How much more a rank costs that is not among the nearest ones. */
  private static final double COST_OF_FAR = 20;

  /** How a cost becomes a likeness: 0.74 for the nearest 0.5 % of all pairs of places. */
  private static final double STEEPNESS = 0.294;

  /**
   * Up to this distance a jump that is among the nearest is not heard; it was set on ten songs and
   * fifteen orchestral pieces (docs/measuring.md).
   */
  private static final double UNHEARD_DB = 7.5;

  private static final double UNHEARD = 0.74;

  /** The least that a distance makes of a likeness by itself, whatever the rest of the song is. */
  private static final double LEAST_BY_DISTANCE = 0.4;

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

  /**
   * What a distance costs by its rank; what is as good as the same recording costs next to nothing.
   */
  double cost(double distance) {
    double rank = rank(distance);
    double literal = distance / NOTHING_DB;
    return COST_OF_RANK * (Math.sqrt(rank) + COST_OF_FAR * rank) * Math.min(1, literal * literal);
  }

  /**
   * How like one another both sides of a jump are, 0 to 1: by the rank of their distance among
   * those of the song, and no more than the distance itself allows, as in a song without repeats
   * the nearest places are far apart, too.
   */
  double likeness(double distance) {
    double byRank = Math.exp(-STEEPNESS * cost(distance));
    return Math.min(byRank, Math.clamp(UNHEARD * UNHEARD_DB / distance, LEAST_BY_DISTANCE, 1));
  }

  /** Which part of all pairs of places is at least as near as a distance, 0 to 1. */
  private double rank(double d) {
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

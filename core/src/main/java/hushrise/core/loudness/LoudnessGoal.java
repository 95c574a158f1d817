package hushrise.core.loudness;

/**
 * The loudness that is asked for.
 *
 * @param lufs integrated loudness, -60 to -5
 * @param ceilingDbtp above which no true peak may lie, -20 to 0
 * @param mostLimitingDb by how much peaks may be held down for it, 0 to 20
 */
public record LoudnessGoal(double lufs, double ceilingDbtp, double mostLimitingDb) {

  /** The ceiling that is asked for nearly everywhere, also by EBU R 128. */
  public static final double USUAL_CEILING_DBTP = -1;

  /** What can be held down without being heard as such. */
  public static final double USUAL_LIMITING_DB = 6;

  /** The most that can be allowed. */
  public static final double MOST_LIMITING_DB = 20;

  public LoudnessGoal {
    if (!(lufs >= -60 && lufs <= -5)
        || !(ceilingDbtp >= -20 && ceilingDbtp <= 0)
        || !(mostLimitingDb >= 0 && mostLimitingDb <= MOST_LIMITING_DB)) {
      throw new IllegalArgumentException(
          "Not a loudness to ask for: %s LUFS under %s dBTP".formatted(lufs, ceilingDbtp));
    }
  }

  /** A loudness under the usual ceiling. */
  public static LoudnessGoal of(double lufs) {
    return new LoudnessGoal(lufs, USUAL_CEILING_DBTP, USUAL_LIMITING_DB);
  }
}

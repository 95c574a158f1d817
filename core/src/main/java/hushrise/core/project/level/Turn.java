package hushrise.core.project.level;

/**
 * The four times of a hush, in seconds.
 *
 * @param leadSeconds how long before the passage the floor is reached; negative: under its start
 * @param fallSeconds how long the level takes down, at least 0
 * @param tailSeconds how long after the passage the floor is held; negative: under its end
 * @param recoverySeconds how long the level takes back up, at least 0
 */
public record Turn(
    double leadSeconds, double fallSeconds, double tailSeconds, double recoverySeconds) {

  public static final Turn DEFAULT = new Turn(0.05, 0.35, 0.10, 0.90);

  public Turn {
    if (!(fallSeconds >= 0) || !(recoverySeconds >= 0)) {
      throw new IllegalArgumentException("A hush cannot fall or recover in less than no time");
    }
  }

  public Turn withLead(double seconds) {
    return new Turn(seconds, fallSeconds, tailSeconds, recoverySeconds);
  }

  public Turn withFall(double seconds) {
    return new Turn(leadSeconds, Math.max(0, seconds), tailSeconds, recoverySeconds);
  }

  public Turn withTail(double seconds) {
    return new Turn(leadSeconds, fallSeconds, seconds, recoverySeconds);
  }

  public Turn withRecovery(double seconds) {
    return new Turn(leadSeconds, fallSeconds, tailSeconds, Math.max(0, seconds));
  }
}

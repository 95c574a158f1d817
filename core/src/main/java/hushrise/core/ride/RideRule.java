package hushrise.core.ride;

/**
 * How a ride is written.
 *
 * @param toleranceDb how far the written line may be from the hand
 * @param glides whether the level goes back to what was there once the hand has let go; else it
 *     stays where the hand left it
 * @param glideSeconds how long it takes to go back
 */
public record RideRule(double toleranceDb, boolean glides, double glideSeconds) {

  public static final RideRule DEFAULT = new RideRule(0.5, false, 1.0);

  public RideRule {
    toleranceDb = Math.clamp(toleranceDb, 0.05, 6);
    glideSeconds = Math.clamp(glideSeconds, 0.05, 20);
  }

  /** A hand that follows this rule. */
  public Hand hand(int sampleRate) {
    return new Hand(glides, glideFrames(sampleRate));
  }

  long glideFrames(int sampleRate) {
    return Math.max(1, Math.round(glideSeconds * sampleRate));
  }
}

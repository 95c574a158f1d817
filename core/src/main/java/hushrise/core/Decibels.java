package hushrise.core;

/** Gains in decibels and as factors. At or under {@link #OFF_DB} a level is off: silence. */
public final class Decibels {

  /** The level at which a level line counts as off, in dB. */
  public static final double OFF_DB = -60.0;

  private static final double NEPERS_PER_DB = Math.log(10) / 20;

  private Decibels() {}

  /** The amplitude factor of a gain in dB; 0 for minus infinity. */
  public static double toFactor(double db) {
    return db == 0.0 ? 1.0 : Math.exp(db * NEPERS_PER_DB);
  }

  /** The gain in dB of an amplitude factor of at least 0; minus infinity for 0. */
  public static double ofFactor(double factor) {
    return 20 * Math.log10(factor);
  }

  /** The factor of a level on a line or a track, where {@link #OFF_DB} and less means silence. */
  public static double levelToFactor(double db) {
    return db <= OFF_DB ? 0.0 : toFactor(db);
  }
}

package hushrise.core.play;

/**
 * How the mix is listened to. It changes nothing of what is delivered.
 *
 * @param levelDb how loud it is played, -60 to 0
 * @param through what it is played through
 */
public record Ears(double levelDb, Through through) {

  /** What a mix can be listened through. */
  public enum Through {
    /** Left and right as they are. */
    STEREO,
    /** Both added, as on a single loudspeaker. */
    MONO,
    /** Both added, and no more than 200 Hz to 6 kHz of it, as on a telephone. */
    SMALL_SPEAKER
  }

  public static final Ears PLAIN = new Ears(0, Through.STEREO);

  public Ears {
    levelDb = Math.clamp(levelDb, -60, 0);
  }

  public Ears withLevelDb(double db) {
    return new Ears(db, through);
  }

  public Ears withThrough(Through other) {
    return new Ears(levelDb, other);
  }
}

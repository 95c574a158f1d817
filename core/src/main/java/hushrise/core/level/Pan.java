package hushrise.core.level;

/** The factors of a pan: the channel that a track moves away from is lowered by a cosine. */
public final class Pan {

  private Pan() {}

  /** The left channel's factor; {@code pan} runs from -1 (left) to 1 (right). */
  public static float left(double pan) {
    return away(pan);
  }

  /** The right channel's factor; {@code pan} runs from -1 (left) to 1 (right). */
  public static float right(double pan) {
    return away(-pan);
  }

  private static float away(double by) {
    return by >= 1 ? 0 : by <= 0 ? 1 : (float) Math.cos(Math.PI / 2 * by);
  }
}

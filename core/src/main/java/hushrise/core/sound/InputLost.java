package hushrise.core.sound;

/** An input that hears nothing any more, as when its device was unplugged. */
public final class InputLost extends RuntimeException {

  private static final long serialVersionUID = 1;

  public InputLost(String message, Throwable cause) {
    super(message, cause);
  }
}

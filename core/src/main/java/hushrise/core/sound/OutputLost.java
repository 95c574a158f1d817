package hushrise.core.sound;

/** An output that takes no more sound, as when its device was unplugged. */
public final class OutputLost extends RuntimeException {

  private static final long serialVersionUID = 1;

  public OutputLost(String message, Throwable cause) {
    super(message, cause);
  }
}

package hushrise.core;

/**
 * Something a person can meet and mend: the message is one sentence or two, saying what happened,
 * to which file, and what to do about it. It is shown as it stands.
 */
public final class Problem extends RuntimeException {

  /**
   * @param sentence what happened, to what, and the remedy
   */
  public Problem(String sentence) {
    super(sentence);
  }

  /**
   * @param sentence what happened, to what, and the remedy
   * @param cause what lay behind it, for the log
   */
  public Problem(String sentence, Throwable cause) {
    super(sentence, cause);
  }
}

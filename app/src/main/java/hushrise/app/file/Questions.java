package hushrise.app.file;

/** Asks a person something before going on. */
public interface Questions {

  /**
   * Asks a question with one answer and a way out.
   *
   * @param title what it is about
   * @param sentence the question
   * @param answer what goes on
   * @param then runs on that answer
   */
  void ask(String title, String sentence, String answer, Runnable then);

  /** Asks a question with two answers and a way out. */
  void ask(
      String title,
      String sentence,
      String firstAnswer,
      Runnable first,
      String secondAnswer,
      Runnable second);
}

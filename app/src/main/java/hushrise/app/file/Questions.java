package hushrise.app.file;

import static hushrise.app.words.Texts.text;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Consumer;

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

  /** Tells something that is longer than a line, until it has been read. */
  void tell(String title, String sentences);

  /** Runs what is not to come while a person is asked something: now, or after that. */
  void whenClosed(Runnable then);

  /**
   * Goes on with a file that a dialog gave for writing. The dialog has asked before it gave one
   * that exists; where the ending had to be added, that is another file, and is asked about here.
   *
   * @param ending with its dot
   */
  default void withEnding(Path chosen, String ending, Consumer<Path> then) {
    Path file = FileNames.withEnding(chosen, ending);
    if (file.equals(chosen) || !Files.exists(file)) {
      then.accept(file);
    } else {
      ask(
          text("replace.title"),
          text("replace.question", file.getFileName()),
          text("replace.answer"),
          () -> then.accept(file));
    }
  }
}

package hushrise.app.job;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;

/**
 * Keeps answers about a file away that were under way when the file was forgotten, as they tell of
 * the file as it was. Used by the window's thread.
 */
public final class LateAnswers {

  private final Map<Path, Integer> forgotten = new HashMap<>();

  /** Takes an answer about a file, unless the file is forgotten before it comes. */
  public <T> Consumer<T> unlessForgotten(Path file, Consumer<T> then) {
    int asked = times(file);
    return answer -> {
      if (asked == times(file)) {
        then.accept(answer);
      }
    };
  }

  /** Lets no answer through that was asked for so far. */
  public void forget(Path file) {
    forgotten.merge(file, 1, Integer::sum);
  }

  private int times(Path file) {
    return forgotten.getOrDefault(file, 0);
  }
}

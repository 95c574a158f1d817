package hushrise.app.job;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.junit.jupiter.api.Test;

class LateAnswersTest {

  private static final Path FILE = Path.of("tune.wav");

  @Test
  void anAnswerThatWasUnderWayWhenItsFileWasForgottenIsNotTaken() {
    LateAnswers late = new LateAnswers();
    List<String> taken = new ArrayList<>();
    Consumer<String> old = late.unlessForgotten(FILE, taken::add);
    Consumer<String> other = late.unlessForgotten(Path.of("film.mp4"), taken::add);
    late.forget(FILE);
    Consumer<String> fresh = late.unlessForgotten(FILE, taken::add);
    fresh.accept("fresh");
    old.accept("old");
    other.accept("other");
    assertThat(taken).containsExactly("fresh", "other");
  }
}

package hushrise.app.job;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import org.junit.jupiter.api.Test;

class TurnsTest {

  private final Deque<Runnable> workers = new ArrayDeque<>();
  private final Turns turn = Turns.latestFirst(workers::add, 1);
  private final List<String> done = new ArrayList<>();

  private void work() {
    while (!workers.isEmpty()) {
      workers.remove().run();
    }
  }

  @Test
  void theLastAskedForComesFirstAndTakesOneWorkerAtATime() {
    for (String row : List.of("first", "second", "third")) {
      turn.execute(() -> done.add(row));
    }
    workers.add(() -> done.add("something else"));
    assertThat(workers).hasSize(2);
    work();
    assertThat(done).containsExactly("third", "something else", "second", "first");
  }

  @Test
  void someWorkersAreLeftToOthers() {
    Turns inOrder = Turns.inOrder(workers::add, 2);
    for (String row : List.of("first", "second", "third")) {
      inOrder.execute(() -> done.add(row));
    }
    workers.add(() -> done.add("what somebody asks for"));
    assertThat(workers).hasSize(3);
    work();
    assertThat(done).containsExactly("first", "second", "what somebody asks for", "third");
    inOrder.execute(() -> done.add("fourth"));
    work();
    assertThat(done).endsWith("fourth");
  }

  @Test
  void whatFailsDoesNotHoldUpTheOthers() {
    turn.execute(() -> done.add("first"));
    turn.execute(
        () -> {
          throw new IllegalStateException("broken");
        });
    assertThatThrownBy(this::work).hasMessage("broken");
    work();
    turn.execute(() -> done.add("later"));
    work();
    assertThat(done).containsExactly("first", "later");
  }
}

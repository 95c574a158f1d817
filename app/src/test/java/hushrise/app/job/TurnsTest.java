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
  void whatTakesAMomentComesRightBehindWhatReadsTheSame() {
    Turns inOrder = Turns.inOrder(workers::add, 1);
    inOrder.about("a").execute(() -> done.add("read a"));
    inOrder.about("b").execute(() -> done.add("read b"));
    inOrder.about("a").execute(() -> done.add("listen to a"));
    inOrder.behind("b").execute(() -> done.add("draw b"));
    inOrder.behind("a").execute(() -> done.add("draw a"));
    inOrder.behind("c").execute(() -> done.add("draw c"));
    work();
    assertThat(done)
        .containsExactly("read a", "draw a", "read b", "draw b", "listen to a", "draw c");
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

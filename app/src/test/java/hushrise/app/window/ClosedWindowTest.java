package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import java.lang.ref.WeakReference;
import java.util.Collection;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Collectors;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** What a window leaves behind. */
class ClosedWindowTest extends WindowTestCase {

  /** What other tests have left running. */
  private final Set<Long> others = threads().keySet();

  @Test
  void nothingHoldsAWindowThatHasClosedAndNoThreadOfItsGoesOn() throws TimeoutException {
    untilOpen();
    robot.interact(() -> window.run(CommandId.RECORDER)); // whose meter must not go on
    Set<Long> own = threads().keySet();
    own.removeAll(others);
    assertThat(own).isNotEmpty();
    WeakReference<Window> closed = new WeakReference<>(window);
    Stage stage = (Stage) window.root().getScene().getWindow();
    robot.interact(() -> window.close());
    robot.interact(() -> show(stage)); // in whose place the next one opens
    untilOpen();
    FxToolkit.registerPrimaryStage(); // TestFX forgets what came before
    until("nothing holds the first", () -> isGone(closed));
    assertThat(goingOn(own)).isEmpty();
  }

  private static boolean isGone(WeakReference<?> reference) {
    System.gc();
    return reference.get() == null;
  }

  /** Which of some threads still run, after a while in which they may end. */
  private static Collection<String> goingOn(Set<Long> ids) {
    long end = System.nanoTime() + 30_000_000_000L;
    Map<Long, String> left;
    do {
      WaitForAsyncUtils.sleep(50, TimeUnit.MILLISECONDS);
      left = threads();
      left.keySet().retainAll(ids);
    } while (!left.isEmpty() && System.nanoTime() < end);
    return left.values();
  }

  private static Map<Long, String> threads() {
    return Thread.getAllStackTraces().keySet().stream()
        .filter(t -> t.getName().startsWith("hushrise-"))
        .collect(Collectors.toMap(Thread::threadId, Thread::getName));
  }
}

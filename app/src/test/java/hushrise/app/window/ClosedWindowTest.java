package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.ref.WeakReference;
import java.util.Set;
import java.util.concurrent.TimeoutException;
import java.util.stream.Collectors;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;

/** What a window leaves behind. */
class ClosedWindowTest extends WindowTestCase {

  @Test
  void nothingHoldsAWindowThatHasClosedAndNoThreadOfItsGoesOn() throws TimeoutException {
    untilOpen();
    Set<Long> before = threads();
    assertThat(before).isNotEmpty();
    WeakReference<Window> closed = new WeakReference<>(window);
    Stage stage = (Stage) window.root().getScene().getWindow();
    robot.interact(() -> window.close());
    robot.interact(() -> show(stage)); // in whose place the next one opens
    untilOpen();
    FxToolkit.registerPrimaryStage(); // TestFX forgets what came before
    until("nothing holds the first", () -> isGone(closed));
    until("its threads have ended", () -> threads().stream().noneMatch(before::contains));
  }

  private static boolean isGone(WeakReference<?> reference) {
    System.gc();
    return reference.get() == null;
  }

  private static Set<Long> threads() {
    return Thread.getAllStackTraces().keySet().stream()
        .filter(t -> t.getName().startsWith("hushrise-"))
        .map(Thread::threadId)
        .collect(Collectors.toSet());
  }
}

package hushrise.app;

import hushrise.core.Problem;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Work off the window's thread. Counts what is under way, so that a picture of the window can wait
 * until everything has arrived.
 */
public final class Background {

  private static final Logger LOG = LoggerFactory.getLogger(Background.class);

  private final Consumer<String> complain;
  private final ReadOnlyIntegerWrapper pending = new ReadOnlyIntegerWrapper();
  private final ExecutorService workers =
      Executors.newFixedThreadPool(
          Math.max(2, Runtime.getRuntime().availableProcessors() - 1),
          Thread.ofPlatform().daemon().name("hushrise-work-", 0).factory());

  /**
   * @param complain shows a problem's sentence; called on the window's thread
   */
  public Background(Consumer<String> complain) {
    this.complain = complain;
  }

  /** How many pieces of work are under way; changes on the window's thread. */
  public ReadOnlyIntegerProperty pendingProperty() {
    return pending.getReadOnlyProperty();
  }

  /** Runs work, then hands its result over on the window's thread; a problem is shown instead. */
  public <T> void run(Callable<T> work, Consumer<T> then) {
    run(workers, work, then, () -> {});
  }

  /**
   * As {@link #run(Callable, Consumer)}; {@code failed} runs on the window's thread when it fails.
   */
  public <T> void run(Callable<T> work, Consumer<T> then, Runnable failed) {
    run(workers, work, then, failed);
  }

  /** As {@link #run(Callable, Consumer)}, on workers of the caller's own. */
  public <T> void run(ExecutorService on, Callable<T> work, Consumer<T> then, Runnable failed) {
    pending.set(pending.get() + 1);
    on.execute(
        () -> {
          try {
            T result = work.call();
            finish(() -> then.accept(result));
          } catch (CancellationException e) {
            finish(failed);
          } catch (Problem e) {
            LOG.debug("A problem was shown", e);
            finish(
                () -> {
                  failed.run();
                  complain.accept(e.getMessage());
                });
          } catch (Exception e) {
            LOG.error("Work in the background failed", e);
            finish(
                () -> {
                  failed.run();
                  complain.accept(look("failed", e));
                });
          }
        });
  }

  private static String look(String key, Exception e) {
    return hushrise.app.look.Texts.text(key, String.valueOf(e.getMessage()));
  }

  private void finish(Runnable last) {
    Platform.runLater(
        () -> {
          try {
            last.run();
          } finally {
            pending.set(pending.get() - 1);
          }
        });
  }
}

package hushrise.app;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Work off the window's thread. Counts what is under way, so that a picture of the window can wait
 * until everything has arrived.
 */
public final class Background {

  private static final Logger LOG = LoggerFactory.getLogger(Background.class);

  private static final long SHOW_EVERY_NANOS = 50_000_000L;

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

  /** Shows a problem's sentence. */
  public void complain(String sentence) {
    complain.accept(sentence);
  }

  /** How many pieces of work are under way; changes on the window's thread. */
  public ReadOnlyIntegerProperty pendingProperty() {
    return pending.getReadOnlyProperty();
  }

  /** Work that tells how far it is, and can be ended. */
  @FunctionalInterface
  public interface LongWork<T> {
    T call(Progress progress) throws Exception;
  }

  /**
   * Something under way that a person may want to see or end.
   *
   * @param words what it is
   * @param fraction how far it is, 0 to 1
   * @param cancelled ends it when set
   */
  public record Job(String words, DoubleProperty fraction, AtomicBoolean cancelled) {}

  private final ObservableList<Job> jobs = FXCollections.observableArrayList();

  /** What is under way and worth showing; changes on the window's thread. */
  public ObservableList<Job> jobs() {
    return jobs;
  }

  /** Runs work that may take long, shown by its words and its progress until it is done. */
  public <T> void run(String words, LongWork<T> work, Consumer<T> then) {
    run(words, work, then, () -> {});
  }

  /** As above; {@code failed} runs on the window's thread when it fails or is cancelled. */
  public <T> void run(String words, LongWork<T> work, Consumer<T> then, Runnable failed) {
    Job job = new Job(words, new SimpleDoubleProperty(), new AtomicBoolean());
    jobs.add(job);
    long[] shownAt = {0};
    Progress progress =
        fraction -> {
          if (job.cancelled().get()) {
            throw new CancellationException();
          }
          long now = System.nanoTime();
          if (now - shownAt[0] > SHOW_EVERY_NANOS) {
            shownAt[0] = now;
            Platform.runLater(() -> job.fraction().set(fraction));
          }
        };
    run(
        workers,
        () -> work.call(progress),
        result -> {
          jobs.remove(job);
          then.accept(result);
        },
        () -> {
          jobs.remove(job);
          failed.run();
        });
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

package hushrise.app.job;

import static hushrise.app.words.Texts.text;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.util.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Work off the window's thread. Counts what is under way, so that a picture of the window can wait
 * until everything has arrived. Whatever fails is said, and the workers live on.
 */
public final class Jobs implements AutoCloseable {

  private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);

  private static final int WORKERS = Math.max(3, Runtime.getRuntime().availableProcessors());

  /** What takes longer is worth a word. */
  private static final Duration MOMENT = Duration.millis(600);

  private final Messages messages;
  private final ReadOnlyIntegerWrapper pending = new ReadOnlyIntegerWrapper();
  private final ObservableList<Job> shown = FXCollections.observableArrayList();
  private final ExecutorService workers =
      Executors.newFixedThreadPool(
          WORKERS, Thread.ofPlatform().daemon().name("hushrise-work-", 0).factory());

  private final Turns lookers = Turns.inOrder(workers, WORKERS - 1);

  /**
   * @param messages are told what went wrong
   */
  public Jobs(Messages messages) {
    this.messages = messages;
  }

  /** Work that tells how far it is, and can be ended. */
  @FunctionalInterface
  public interface LongWork<T> {
    T call(Progress progress) throws Exception;
  }

  /**
   * Work on a file of the project that is given up without a word, as if it was cancelled, where
   * the file is not there: whoever watches the files tells of that, once and with what to do.
   */
  public static <T> LongWork<T> ifThere(Path file, LongWork<T> work) {
    return progress -> {
      if (!Files.exists(file)) {
        throw new CancellationException(file + " is not there");
      }
      return work.call(progress);
    };
  }

  /** How many pieces of work are under way; changes on the window's thread. */
  public ReadOnlyIntegerProperty pendingProperty() {
    return pending.getReadOnlyProperty();
  }

  /** What is under way and worth showing; changes on the window's thread. */
  public ObservableList<Job> shown() {
    return shown;
  }

  /** Runs work that may take long, shown by its words and its progress until it is done. */
  public <T> Job run(String words, LongWork<T> work, Consumer<T> then) {
    return run(words, work, then, () -> {});
  }

  /** As above; {@code failed} runs on the window's thread when it fails or is cancelled. */
  public <T> Job run(String words, LongWork<T> work, Consumer<T> then, Runnable failed) {
    return run(workers, words, work, then, failed);
  }

  /**
   * Looks into a file of the project, of which there may be hundreds: as above, but one worker is
   * left to what somebody asks for meanwhile.
   */
  public <T> Job look(
      Path file, String words, LongWork<T> work, Consumer<T> then, Runnable failed) {
    return run(lookers.about(file), words, work, then, failed);
  }

  /** As above, where nothing is to be done when it fails or is cancelled. */
  public <T> Job look(Path file, String words, LongWork<T> work, Consumer<T> then) {
    return look(file, words, work, then, () -> {});
  }

  /**
   * As above, of what takes but a moment once the file is read, and is not shown: what else reads
   * the file goes before it, and no other file does then.
   */
  public <T> void glance(Path file, Callable<T> work, Consumer<T> then) {
    run(lookers.behind(file), work, then, () -> {});
  }

  private <T> Job run(
      Executor on, String words, LongWork<T> work, Consumer<T> then, Runnable failed) {
    Job job = new Job(words);
    shown.add(job);
    run(
        on,
        () -> work.call(job.progress()),
        result -> {
          shown.remove(job);
          then.accept(result);
        },
        () -> {
          shown.remove(job);
          failed.run();
        });
    return job;
  }

  /** Shows work that is done elsewhere, until {@link #end}. On the window's thread. */
  public Job begin(String words) {
    Job job = new Job(words);
    shown.add(job);
    pending.set(pending.get() + 1);
    return job;
  }

  /** Shows it no longer. */
  public void end(Job job) {
    shown.remove(job);
    pending.set(pending.get() - 1);
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

  /**
   * Runs work that takes but a moment most of the time. When it takes longer, that is said, and
   * that it has ended. On the window's thread.
   *
   * @param then goes on, whether it failed or not
   */
  public void runSaying(String goesOn, String ended, Runnable work, Runnable then) {
    runSaying(goesOn, ended, Executors.callable(work), done -> then.run(), then);
  }

  /**
   * As above, of work with a result.
   *
   * @param ended what is said then; when that is nothing, what was said is taken back
   * @param failed runs on the window's thread when it fails
   */
  public <T> void runSaying(
      String goesOn, String ended, Callable<T> work, Consumer<T> then, Runnable failed) {
    runSaying(workers, goesOn, ended, work, then, failed);
  }

  /** As above, on workers of the caller's own. */
  public <T> void runSaying(
      Executor on,
      String goesOn,
      String ended,
      Callable<T> work,
      Consumer<T> then,
      Runnable failed) {
    PauseTransition moment = new PauseTransition(MOMENT);
    AtomicBoolean said = new AtomicBoolean();
    moment.setOnFinished(
        e -> {
          said.set(true);
          messages.say(goesOn);
        });
    moment.play();
    Runnable last =
        () -> {
          moment.stop();
          if (said.get() && ended.isEmpty()) {
            messages.takeBack(goesOn);
          } else if (said.get()) {
            messages.say(ended);
          }
        };
    run(
        on,
        work,
        result -> {
          last.run();
          then.accept(result);
        },
        () -> {
          last.run();
          failed.run();
        });
  }

  /** As {@link #run(Callable, Consumer)}, on workers of the caller's own. */
  @SuppressWarnings("CatchingUnchecked") // the edge of a thread: whatever goes wrong is said
  public <T> void run(Executor on, Callable<T> work, Consumer<T> then, Runnable failed) {
    pending.set(pending.get() + 1);
    Runnable task =
        () -> {
          try {
            T result = work.call();
            finish(() -> then.accept(result));
          } catch (CancellationException e) {
            finish(failed);
          } catch (Problem e) {
            LOG.debug("A problem was shown", e);
            fail(failed, e.getMessage());
          } catch (Throwable e) {
            LOG.error("Work in the background failed", e);
            fail(failed, text("failed", String.valueOf(e.getMessage())));
          }
        };
    try {
      on.execute(task);
    } catch (RejectedExecutionException closing) {
      LOG.debug("Work that came too late is left undone", closing);
      pending.set(pending.get() - 1);
    }
  }

  /**
   * Runs work that nothing waits for and whose failure changes nothing, on workers of the caller's
   * own: it is not counted, and what goes wrong is only noted.
   */
  @SuppressWarnings("CatchingUnchecked") // the edge of a thread
  public <T> void runAside(Executor on, Callable<T> work, Consumer<T> then, Runnable failed) {
    Runnable task =
        () -> {
          try {
            T result = work.call();
            Platform.runLater(() -> then.accept(result));
          } catch (Throwable e) {
            LOG.debug("Work aside was not done", e);
            Platform.runLater(failed);
          }
        };
    try {
      on.execute(task);
    } catch (RejectedExecutionException closing) {
      LOG.debug("Work that came too late is left undone", closing);
    }
  }

  private void fail(Runnable failed, String sentence) {
    finish(
        () -> {
          failed.run();
          messages.complain(sentence);
        });
  }

  private void finish(Runnable last) {
    Platform.runLater(
        () -> {
          try {
            if (!workers.isShutdown()) {
              last.run();
            }
          } finally {
            pending.set(pending.get() - 1);
          }
        });
  }

  /** One of the workers at a time, for what only counts while somebody looks at it. */
  public Executor latestFirst() {
    return Turns.latestFirst(workers, 1);
  }

  /** Cancels everything that is shown, as the window closes. */
  public void cancelAll() {
    shown.forEach(Job::cancel);
  }

  /**
   * Lets the workers end when what they have is done, which is told nobody any more; what comes
   * later is left undone.
   */
  @Override
  public void close() {
    workers.shutdown();
  }
}

package hushrise.app.job;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import java.util.concurrent.Executor;
import java.util.concurrent.RejectedExecutionException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Takes some of the workers only, however much there is to do, so that hundreds of files to be
 * looked into leave others to what somebody asks for meanwhile.
 */
final class Turns implements Executor {

  private static final Logger LOG = LoggerFactory.getLogger(Turns.class);

  private final Executor workers;
  private final int atOnce;
  private final boolean latestFirst;
  private final Deque<Task> waiting = new ArrayDeque<>();
  private int busy;

  /**
   * Something to be done.
   *
   * @param about what it needs to have been read
   * @param brief whether it takes but a moment once that is
   */
  private record Task(Object about, boolean brief, Runnable work) {}

  private Turns(Executor workers, int atOnce, boolean latestFirst) {
    this.workers = workers;
    this.atOnce = atOnce;
    this.latestFirst = latestFirst;
  }

  /** What was asked for first comes first. */
  static Turns inOrder(Executor workers, int atOnce) {
    return new Turns(workers, atOnce, false);
  }

  /** What was asked for last comes first, as that is what somebody looks at now. */
  static Turns latestFirst(Executor workers, int atOnce) {
    return new Turns(workers, atOnce, true);
  }

  @Override
  public void execute(Runnable work) {
    execute(new Task(work, false, work));
  }

  /** Workers for what needs the same thing to be read. */
  Executor about(Object thing) {
    return work -> execute(new Task(thing, false, work));
  }

  /**
   * Workers for what takes but a moment once something is read: it comes right behind what reads
   * that.
   */
  Executor behind(Object thing) {
    return work -> execute(new Task(thing, true, work));
  }

  private void execute(Task task) {
    synchronized (waiting) {
      waiting.add(task);
      if (busy == atOnce) {
        return;
      }
      busy++;
    }
    workers.execute(() -> next(Optional.empty()));
  }

  private void next(Optional<Object> read) {
    Task task;
    synchronized (waiting) {
      task = read.flatMap(this::brief).orElseGet(this::polled);
      if (task == null) {
        busy--;
        return;
      }
    }
    try {
      task.work().run();
    } finally {
      goOn(task.about());
    }
  }

  private Task polled() {
    return latestFirst ? waiting.pollLast() : waiting.pollFirst();
  }

  private Optional<Task> brief(Object read) {
    Optional<Task> found =
        waiting.stream().filter(t -> t.brief() && t.about().equals(read)).findFirst();
    found.ifPresent(waiting::remove);
    return found;
  }

  /** Behind what the workers were given meanwhile. */
  private void goOn(Object read) {
    try {
      workers.execute(() -> next(Optional.of(read)));
    } catch (RejectedExecutionException closing) {
      LOG.debug("Work that waited for its turn is left undone", closing);
    }
  }
}

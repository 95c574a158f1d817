package hushrise.app.job;

import java.util.ArrayDeque;
import java.util.Deque;
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
  private final Deque<Runnable> waiting = new ArrayDeque<>();
  private int busy;

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
  public void execute(Runnable task) {
    synchronized (waiting) {
      waiting.add(task);
      if (busy == atOnce) {
        return;
      }
      busy++;
    }
    workers.execute(this::next);
  }

  private void next() {
    Runnable task;
    synchronized (waiting) {
      task = latestFirst ? waiting.pollLast() : waiting.pollFirst();
      if (task == null) {
        busy--;
        return;
      }
    }
    try {
      task.run();
    } finally {
      goOn();
    }
  }

  /** Behind what the workers were given meanwhile. */
  private void goOn() {
    try {
      workers.execute(this::next);
    } catch (RejectedExecutionException closing) {
      LOG.debug("Work that waited for its turn is left undone", closing);
    }
  }
}

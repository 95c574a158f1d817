package hushrise.app.job;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.concurrent.Executor;

/**
 * Runs what was asked for last first, as that is what somebody looks at now; one thing at a time,
 * so that a long row of them leaves the other workers to other work.
 */
final class LatestFirst implements Executor {

  private final Executor workers;
  private final Deque<Runnable> waiting = new ArrayDeque<>();
  private boolean busy;

  /**
   * @param workers one of which is taken for each thing
   */
  LatestFirst(Executor workers) {
    this.workers = workers;
  }

  @Override
  public void execute(Runnable task) {
    synchronized (waiting) {
      waiting.push(task);
      if (busy) {
        return;
      }
      busy = true;
    }
    workers.execute(this::next);
  }

  private void next() {
    Runnable task;
    synchronized (waiting) {
      task = waiting.pop();
    }
    try {
      task.run();
    } finally {
      goOn();
    }
  }

  private void goOn() {
    synchronized (waiting) {
      busy = !waiting.isEmpty();
      if (!busy) {
        return;
      }
    }
    workers.execute(this::next);
  }
}

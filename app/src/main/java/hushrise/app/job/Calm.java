package hushrise.app.job;

import java.util.concurrent.CancellationException;
import java.util.concurrent.locks.LockSupport;

/**
 * Lets long work in the background stand back while somebody moves something in the window: two
 * cores are soon busy, and a frame that comes late is seen.
 */
public final class Calm {

  private static final long AFTER_NANOS = 300_000_000;
  private static final long LOOK_NANOS = 20_000_000;

  private volatile long movedNanos = System.nanoTime() - AFTER_NANOS;

  /** Tells that something in the window moves. */
  public void moved() {
    movedNanos = System.nanoTime();
  }

  /**
   * Waits until nothing has moved for a moment. Not on the window's thread.
   *
   * @throws CancellationException when the thread is interrupted
   */
  public void await() {
    while (System.nanoTime() - movedNanos < AFTER_NANOS) {
      if (Thread.interrupted()) {
        throw new CancellationException();
      }
      LockSupport.parkNanos(LOOK_NANOS);
    }
  }
}

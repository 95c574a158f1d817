package hushrise.app.job;

import javafx.animation.AnimationTimer;

/**
 * Lets something run at most every so often, however often it is asked for, and always once more
 * after the last time it was asked for. On the window's thread.
 */
public final class Throttle {

  private final long everyNanos;
  private final Runnable action;
  private boolean asked;
  private long lastRun;
  private final AnimationTimer timer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          tick();
        }
      };

  public Throttle(long everyMillis, Runnable action) {
    this.everyNanos = everyMillis * 1_000_000;
    this.action = action;
  }

  /** Asks for it: at once when that is long enough ago, else soon. */
  public void ask() {
    asked = true;
    if (System.nanoTime() - lastRun >= everyNanos) {
      run();
    } else {
      timer.start();
    }
  }

  private void tick() {
    if (!asked) {
      timer.stop();
    } else if (System.nanoTime() - lastRun >= everyNanos) {
      run();
    }
  }

  private void run() {
    asked = false;
    action.run();
    lastRun = System.nanoTime();
  }
}

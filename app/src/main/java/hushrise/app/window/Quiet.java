package hushrise.app.window;

import javafx.animation.AnimationTimer;

/** Waits, frame by frame, until a window has nothing under way. */
public final class Quiet {

  private Quiet() {}

  /**
   * Does something once a window has been quiet.
   *
   * @param frames for so many of its frames one after another
   */
  public static void when(Window window, int frames, Runnable then) {
    new AnimationTimer() {
      private int quiet;

      @Override
      public void handle(long now) {
        quiet = window.isBusy() ? 0 : quiet + 1;
        if (quiet >= frames) {
          stop();
          then.run();
        }
      }
    }.start();
  }
}

package hushrise.cli;

import hushrise.core.sound.Progress;
import java.io.Console;

/** One line at the terminal that tells how far the work is; nothing where nobody watches. */
final class ProgressLine {

  private static final long REDRAW_NANOS = 200_000_000L;

  private final boolean shown;
  private long drawnAt;
  private boolean drawn;

  /**
   * @param quiet never show it
   */
  @SuppressWarnings("SystemConsoleNull") // it is null where nothing is a terminal, as in JDK 25
  ProgressLine(boolean quiet) {
    Console console = System.console();
    shown = !quiet && console != null && console.isTerminal();
  }

  /** Progress of one part of the work. */
  Progress of(String what) {
    if (!shown) {
      return Progress.NONE;
    }
    long start = System.nanoTime();
    return fraction -> draw(what, fraction, start);
  }

  private synchronized void draw(String what, double fraction, long start) {
    long now = System.nanoTime();
    if (now - drawnAt < REDRAW_NANOS) {
      return;
    }
    drawnAt = now;
    drawn = true;
    double seconds = (now - start) / 1e9;
    String left =
        fraction > 0.02 ? ", %.0f s left".formatted(seconds / fraction * (1 - fraction)) : "";
    System.err.printf("\r%s: %3.0f %%%s\033[K", what, fraction * 100, left);
  }

  /** Clears the line. */
  synchronized void end() {
    if (drawn) {
      System.err.print("\r\033[K");
    }
  }
}

package hushrise.app.job;

import java.util.OptionalDouble;

/**
 * How long something still takes at the pace at which it has come forward since it first told how
 * far it is: what it waited before that says nothing. Safe for any number of threads.
 */
final class Pace {

  /** Less of it says nothing about the rest. */
  private static final double LEAST_PART = 0.03;

  private double firstPart = -1;
  private double lastPart;
  private long firstNanos;
  private long lastNanos;

  /**
   * Notes how far it is.
   *
   * @param part 0 to 1
   * @param nanos when
   */
  synchronized void at(double part, long nanos) {
    if (firstPart < 0) {
      firstPart = part;
      firstNanos = nanos;
    }
    lastPart = part;
    lastNanos = nanos;
  }

  /** In seconds; empty while too little has been seen of it. */
  synchronized OptionalDouble secondsLeft() {
    double seen = lastPart - firstPart;
    return firstPart < 0 || seen < LEAST_PART
        ? OptionalDouble.empty()
        : OptionalDouble.of((lastNanos - firstNanos) / 1e9 / seen * (1 - lastPart));
  }
}

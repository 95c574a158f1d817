package hushrise.core.play;

import hushrise.core.mix.Mixer;

/**
 * One stretch of playing, from one call of {@link Player#play} on. Who wishes for it and the thread
 * that plays it share it; nobody waits for the other.
 */
final class Run {

  private final boolean softEdges;
  volatile Mixer mixer;
  volatile Range range;
  volatile long fromFrame;

  /** Whether something of it has been handed to the output, from {@link #fromFrame} on. */
  volatile boolean begun;

  /**
   * @param softEdges whether it comes in and goes softly
   */
  Run(Mixer mixer, long fromFrame, Range range, boolean softEdges) {
    this.mixer = mixer;
    this.fromFrame = fromFrame;
    this.range = range;
    this.softEdges = softEdges;
  }

  boolean softEdges() {
    return softEdges;
  }
}

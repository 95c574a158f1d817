package hushrise.core.sound;

import java.util.concurrent.CancellationException;

/** Hears how far a long piece of work has come, and may end it. */
@FunctionalInterface
public interface Progress {

  Progress NONE = fraction -> {};

  /**
   * Called often, from the thread that does the work.
   *
   * @param fraction 0 to 1
   * @throws CancellationException to end the work; it leaves nothing behind
   */
  void at(double fraction);
}

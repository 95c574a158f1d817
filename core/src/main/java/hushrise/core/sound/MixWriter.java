package hushrise.core.sound;

/**
 * Takes a finished mix, block by block. What it writes appears under its final name only with
 * {@link #finish}; until then, and after {@link #close} without it, an older file of that name is
 * untouched.
 */
public interface MixWriter extends AutoCloseable {

  /**
   * Appends frames.
   *
   * @param left the left channel, full scale 1
   * @param right the right channel
   * @param frames how many of the arrays' frames to take
   * @throws hushrise.core.Problem when they cannot be written, such as on a full disk
   */
  void write(float[] left, float[] right, int frames);

  /** Completes the file and puts it in its place. */
  void finish();

  /** Lets go; removes what was written when {@link #finish} was not reached. */
  @Override
  void close();
}

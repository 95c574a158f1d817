package hushrise.core.sound;

/** A device, or a stand-in for one, that sounds what it is given at the pace of real time. */
public interface AudioOutput extends AutoCloseable {

  /** What a person should know it as, such as "silent output (no sound device)". */
  String name();

  /**
   * Gives frames to sound; waits while the device's buffer is full.
   *
   * @param left the left channel, full scale 1; louder is clipped
   * @param right the right channel
   * @param frames how many of the arrays' frames to take
   * @throws OutputLost when it can sound nothing any more
   */
  void write(float[] left, float[] right, int frames);

  /** How many of the frames written since the last {@link #flush} have sounded. */
  long framesSounded();

  /** Drops what has been written and not sounded; the count starts again at 0. */
  void flush();

  @Override
  void close();
}

package hushrise.core.sound;

/** A microphone, or a stand-in for one, that gives what it hears at the pace of real time. */
public interface AudioInput extends AutoCloseable {

  /** What a person should know it as. */
  String name();

  /**
   * Gives what was heard since the last call, in mono; waits until there is something.
   *
   * @param samples receives them, full scale 1
   * @return how many, at most the array's length
   * @throws InputLost when it can hear nothing any more
   */
  int read(float[] samples);

  /** Lets a {@link #read} that waits return, and the device go. */
  @Override
  void close();
}

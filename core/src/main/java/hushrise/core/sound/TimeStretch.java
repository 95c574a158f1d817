package hushrise.core.sound;

/** Lets stereo sound go by slower or faster at the same pitch. For one thread at a time. */
public interface TimeStretch extends AutoCloseable {

  /** Makes stretches. */
  @FunctionalInterface
  interface Maker {

    /**
     * A stretch.
     *
     * @param speed how many frames go in for each that comes out, 0.5 to 2
     * @throws hushrise.core.Problem when it cannot be made
     */
    TimeStretch of(int sampleRate, double speed);
  }

  /** How many frames go in for each that comes out. */
  double speed();

  /** Takes frames. */
  void put(float[] left, float[] right, int frames);

  /**
   * Gives what is ready.
   *
   * @return how many frames it has put into the arrays, at most their length; 0 when more must go
   *     in first
   */
  int take(float[] left, float[] right);

  /** Forgets what went in. */
  void reset();

  @Override
  void close();
}

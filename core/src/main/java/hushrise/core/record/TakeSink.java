package hushrise.core.record;

/** Where the samples of a take go. */
public interface TakeSink extends AutoCloseable {

  /**
   * Appends samples.
   *
   * @throws hushrise.core.Problem when it takes no more
   */
  void write(float[] samples, int offset, int count);

  /** How many samples it has taken. */
  long frames();

  @Override
  void close();

  /** A sink that keeps its samples in memory. */
  final class Kept implements TakeSink {
    private final float[] samples;
    private int count;

    /**
     * @param most how many it keeps; more are let go
     */
    public Kept(int most) {
      samples = new float[most];
    }

    @Override
    public synchronized void write(float[] from, int offset, int n) {
      int take = Math.min(n, samples.length - count);
      System.arraycopy(from, offset, samples, count, take);
      count += take;
    }

    @Override
    public synchronized long frames() {
      return count;
    }

    /** What it has kept. */
    public synchronized float[] samples() {
      return java.util.Arrays.copyOf(samples, count);
    }

    @Override
    public void close() {}
  }
}

package hushrise.core.sound;

/**
 * Samples that can be read at any place, again and again, by one thread at a time per call. All
 * sources of a project run at its sample rate.
 */
public interface SampleSource {

  /** 1 (mono) or 2 (stereo: left, right). */
  int channels();

  /** How many frames there are. */
  long lengthFrames();

  /**
   * Reads frames as 32-bit floats, full scale being 1. Places before the start and after the end
   * read as silence. Mono fills {@code left} alone and leaves {@code right} untouched.
   *
   * @param startFrame the first frame wanted; may be negative
   * @param frames how many, at most the arrays' length less {@code offset}
   * @param left receives the left or only channel
   * @param right receives the right channel
   * @param offset where in the arrays to begin
   */
  void read(long startFrame, int frames, float[] left, float[] right, int offset);

  /**
   * Brings frames near, so that {@link #read} of them soon after does not wait for a disk. Takes
   * any place; many threads may call it at once.
   */
  default void touch(long startFrame, int frames) {}

  /**
   * A source over arrays in memory.
   *
   * @param planar one or two arrays of equal length, one for each channel; they are not copied
   */
  static SampleSource of(float[]... planar) {
    return new ArraySource(planar);
  }
}

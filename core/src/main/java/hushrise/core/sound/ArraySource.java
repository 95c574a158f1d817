package hushrise.core.sound;

import java.util.Arrays;

/** Samples in memory, planar. */
final class ArraySource implements SampleSource {

  private final float[][] planar;

  ArraySource(float[][] planar) {
    if (planar.length < 1
        || planar.length > 2
        || planar[0].length != planar[planar.length - 1].length) {
      throw new IllegalArgumentException("A source has one or two channels of equal length");
    }
    this.planar = planar;
  }

  @Override
  public int channels() {
    return planar.length;
  }

  @Override
  public long lengthFrames() {
    return planar[0].length;
  }

  @Override
  public void read(long startFrame, int frames, float[] left, float[] right, int offset) {
    copy(planar[0], startFrame, frames, left, offset);
    if (planar.length == 2) {
      copy(planar[1], startFrame, frames, right, offset);
    }
  }

  private static void copy(float[] from, long startFrame, int frames, float[] to, int offset) {
    int first = Math.clamp(-startFrame, 0, frames);
    int last = Math.clamp(from.length - startFrame, first, frames);
    Arrays.fill(to, offset, offset + first, 0);
    if (last > first) {
      System.arraycopy(from, (int) (startFrame + first), to, offset + first, last - first);
    }
    Arrays.fill(to, offset + last, offset + frames, 0);
  }
}

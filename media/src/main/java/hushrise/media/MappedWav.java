package hushrise.media;

import hushrise.core.sound.SampleSource;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;
import java.util.Arrays;

/** Samples of a PCM WAV file, read from where they lie. */
final class MappedWav implements SampleSource {

  /** Two samples of 16 bits at once: left and right. */
  private static final ValueLayout.OfInt PAIR =
      ValueLayout.JAVA_INT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

  private static final ValueLayout.OfShort SHORT =
      ValueLayout.JAVA_SHORT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
  private static final ValueLayout.OfFloat FLOAT =
      ValueLayout.JAVA_FLOAT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

  /** Under this a float counts as silence: numbers so small are slow to reckon with. */
  private static final float NOTHING = 1e-20f;

  /** Working space for one reader at a time on each thread. */
  private static final ThreadLocal<short[]> SHORTS =
      ThreadLocal.withInitial(() -> new short[1 << 12]);

  private static final ThreadLocal<int[]> PAIRS = ThreadLocal.withInitial(() -> new int[1 << 12]);

  private final WavLayout layout;
  private final MemorySegment data;

  /**
   * @param data the samples, interleaved
   */
  MappedWav(WavLayout layout, MemorySegment data) {
    this.layout = layout;
    this.data = data;
  }

  @Override
  public int channels() {
    return layout.channels();
  }

  @Override
  public long lengthFrames() {
    return layout.frames();
  }

  @Override
  public void read(long startFrame, int frames, float[] left, float[] right, int offset) {
    int first = Math.clamp(-startFrame, 0, frames);
    int last = Math.clamp(layout.frames() - startFrame, first, frames);
    long at = (startFrame + first) * layout.channels() * layout.bytesPerSample();
    boolean pairs = layout.channels() == 2 && layout.bytesPerSample() == Short.BYTES;
    if (pairs) {
      readPairs(at, left, right, offset + first, offset + last);
    }
    for (int c = 0; c < layout.channels(); c++) {
      float[] to = c == 0 ? left : right;
      Arrays.fill(to, offset, offset + first, 0);
      if (!pairs) {
        readOne(at + (long) c * layout.bytesPerSample(), to, offset + first, offset + last);
      }
      Arrays.fill(to, offset + last, offset + frames, 0);
    }
  }

  private void readOne(long at, float[] to, int from, int until) {
    int step = layout.channels() * layout.bytesPerSample();
    switch (layout.bytesPerSample()) {
      case 2 -> readShorts(at, to, from, until);
      case 3 -> readThrees(at, step, to, from, until);
      default -> readFloats(at, step, to, from, until);
    }
  }

  @Override
  public void touch(long startFrame, int frames) {
    long frameBytes = (long) layout.channels() * layout.bytesPerSample();
    Pages.touch(data, startFrame * frameBytes, frames * frameBytes);
  }

  /** Both channels of 16 bits: as whole numbers of 32, which become vector instructions. */
  private void readPairs(long at, float[] left, float[] right, int from, int until) {
    int[] raw = PAIRS.get();
    for (int i = from; i < until; i += raw.length) {
      int n = Math.min(raw.length, until - i);
      MemorySegment.copy(data, PAIR, at + (long) (i - from) * Integer.BYTES, raw, 0, n);
      for (int k = 0; k < n; k++) {
        left[i + k] = (raw[k] << 16 >> 16) * (1f / (1 << 15));
      }
      for (int k = 0; k < n; k++) {
        right[i + k] = (raw[k] >> 16) * (1f / (1 << 15));
      }
    }
  }

  private void readShorts(long at, float[] to, int from, int until) {
    short[] raw = SHORTS.get();
    for (int i = from; i < until; i += raw.length) {
      int n = Math.min(raw.length, until - i);
      MemorySegment.copy(data, SHORT, at + (long) (i - from) * Short.BYTES, raw, 0, n);
      for (int k = 0; k < n; k++) {
        to[i + k] = raw[k] * (1f / (1 << 15));
      }
    }
  }

  private void readThrees(long at, int step, float[] to, int from, int until) {
    for (int i = from; i < until; i++) {
      long p = at + (long) (i - from) * step;
      int low = data.get(ValueLayout.JAVA_BYTE, p) & 0xFF;
      int high = data.get(SHORT, p + 1);
      to[i] = (high << 8 | low) * (1f / (1 << 23));
    }
  }

  private void readFloats(long at, int step, float[] to, int from, int until) {
    for (int i = from; i < until; i++) {
      float sample = data.get(FLOAT, at + (long) (i - from) * step);
      to[i] = Math.abs(sample) < NOTHING ? 0 : sample;
    }
  }
}

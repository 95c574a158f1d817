package hushrise.media;

import hushrise.core.sound.SampleSource;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;
import java.util.Arrays;

/** Samples of a PCM WAV file, read from where they lie. */
final class MappedWav implements SampleSource {

  private static final ValueLayout.OfShort SHORT =
      ValueLayout.JAVA_SHORT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
  private static final ValueLayout.OfFloat FLOAT =
      ValueLayout.JAVA_FLOAT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

  /** Under this a float counts as silence: numbers so small are slow to reckon with. */
  private static final float NOTHING = 1e-20f;

  /** Working space for one reader at a time on each thread. */
  private static final ThreadLocal<short[]> SHORTS =
      ThreadLocal.withInitial(() -> new short[1 << 13]);

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
    for (int c = 0; c < layout.channels(); c++) {
      float[] to = c == 0 ? left : right;
      Arrays.fill(to, offset, offset + first, 0);
      long at = ((startFrame + first) * layout.channels() + c) * layout.bytesPerSample();
      int step = layout.channels() * layout.bytesPerSample();
      switch (layout.bytesPerSample()) {
        case 2 -> readShorts(at, step, to, offset + first, offset + last);
        case 3 -> readThrees(at, step, to, offset + first, offset + last);
        default -> readFloats(at, step, to, offset + first, offset + last);
      }
      Arrays.fill(to, offset + last, offset + frames, 0);
    }
  }

  @Override
  public void touch(long startFrame, int frames) {
    long frameBytes = (long) layout.channels() * layout.bytesPerSample();
    Pages.touch(data, startFrame * frameBytes, frames * frameBytes);
  }

  private void readShorts(long at, int step, float[] to, int from, int until) {
    short[] raw = SHORTS.get();
    int stride = step / Short.BYTES;
    int most = raw.length / stride;
    for (int i = from; i < until; i += most) {
      int n = Math.min(most, until - i);
      long start = at + (long) (i - from) * step;
      MemorySegment.copy(data, SHORT, start, raw, 0, (n - 1) * stride + 1);
      if (stride == 1) {
        for (int k = 0; k < n; k++) {
          to[i + k] = raw[k] * (1f / (1 << 15));
        }
      } else {
        for (int k = 0; k < n; k++) {
          to[i + k] = raw[2 * k] * (1f / (1 << 15));
        }
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

package hushrise.media;

import hushrise.core.sound.SampleSource;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * Decoded samples in a mapped file of the cache: 32-bit little-endian floats in chunks of {@link
 * #CHUNK} frames, within a chunk one channel after the other. The last chunk is as long as the
 * rest.
 */
final class StoredSound implements SampleSource {

  static final int CHUNK = 8192;

  private static final ValueLayout.OfFloat FLOAT =
      ValueLayout.JAVA_FLOAT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

  private final MemorySegment samples;
  private final int channels;
  private final long length;

  StoredSound(MemorySegment samples, int channels) {
    this.samples = samples;
    this.channels = channels;
    this.length = samples.byteSize() / (4L * channels);
  }

  @Override
  public int channels() {
    return channels;
  }

  @Override
  public long lengthFrames() {
    return length;
  }

  @Override
  public void read(long startFrame, int frames, float[] left, float[] right, int offset) {
    int first = Math.clamp(-startFrame, 0, frames);
    int last = Math.clamp(length - startFrame, first, frames);
    silence(left, right, offset, offset + first);
    int at = first;
    while (at < last) {
      long frame = startFrame + at;
      long chunk = frame / CHUNK * CHUNK;
      int chunkFrames = (int) Math.min(CHUNK, length - chunk);
      int into = (int) (frame - chunk);
      int n = Math.min(last - at, chunkFrames - into);
      long base = (chunk * channels + into) * 4;
      MemorySegment.copy(samples, FLOAT, base, left, offset + at, n);
      if (channels == 2) {
        MemorySegment.copy(samples, FLOAT, base + chunkFrames * 4L, right, offset + at, n);
      }
      at += n;
    }
    silence(left, right, offset + last, offset + frames);
  }

  @Override
  public void touch(long startFrame, int frames) {
    long first = Math.floorDiv(startFrame, CHUNK) * CHUNK;
    long last = (Math.floorDiv(startFrame + frames, CHUNK) + 1) * CHUNK;
    Pages.touch(samples, first * channels * 4, (last - first) * channels * 4);
  }

  private void silence(float[] left, float[] right, int from, int to) {
    Arrays.fill(left, from, to, 0);
    if (channels == 2) {
      Arrays.fill(right, from, to, 0);
    }
  }
}

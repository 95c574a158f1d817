package hushrise.media;

import org.bytedeco.ffmpeg.avformat.AVFormatContext;

/** Sound that is encoded from its start to its end by one encoder. */
final class WholeSound extends SoundEncoder {

  private final SampleEncoder encoder;
  private final float[][] pending;
  private int filled;

  WholeSound(AVFormatContext output, SampleEncoder encoder) {
    super(output, encoder.codec());
    this.encoder = encoder;
    pending = new float[2][encoder.frameSize()];
  }

  @Override
  void add(float[] left, float[] right, int frames, PacketSink sink) {
    for (int done = 0; done < frames; ) {
      int n = Math.min(frames - done, pending[0].length - filled);
      System.arraycopy(left, done, pending[0], filled, n);
      System.arraycopy(right, done, pending[1], filled, n);
      filled += n;
      done += n;
      if (filled == pending[0].length) {
        encodePending(sink);
      }
    }
  }

  private void encodePending(PacketSink sink) {
    encoder.encode(pending[0], pending[1], 0, filled, packet -> deliver(packet, sink));
    filled = 0;
  }

  @Override
  void finish(PacketSink sink) {
    if (filled > 0) {
      encodePending(sink);
    }
    encoder.finish(packet -> deliver(packet, sink));
  }

  @Override
  public void close() {
    encoder.close();
  }
}

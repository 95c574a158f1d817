package hushrise.media;

import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;

/** A film's picture, decoded and encoded anew, for containers that do not take its coding. */
final class PictureRecode implements PictureFeed {

  private final PictureDecoder decoder;
  private final VideoEncoder encoder;
  private final FrameRate rate;
  private boolean waiting;
  private boolean ended;
  private long lastNumber = -1;

  PictureRecode(Path film, FrameRate rate, AVFormatContext output, OutputFormat format) {
    this.rate = rate;
    decoder = new PictureDecoder(film);
    encoder =
        new VideoEncoder(
            output,
            format,
            decoder.codec().width(),
            decoder.codec().height(),
            rate,
            VideoEncoder.BITS_PER_PIXEL);
  }

  @Override
  public boolean copies() {
    return false;
  }

  @Override
  public void writeUntil(double seconds, PacketSink sink) {
    while (!ended) {
      if (!waiting && !decoder.next()) {
        ended = true;
        encoder.finish(sink);
        return;
      }
      waiting = decoder.frameSeconds() > seconds;
      if (waiting) {
        return;
      }
      long number = Math.max(lastNumber + 1, Math.round(decoder.frameSeconds() * rate.perSecond()));
      encoder.add(decoder.frame(), number, sink);
      lastNumber = number;
    }
  }

  @Override
  public void close() {
    encoder.close();
    decoder.close();
  }
}

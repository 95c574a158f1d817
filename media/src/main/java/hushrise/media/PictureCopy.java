package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_copy;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;

import java.nio.file.Path;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;

/**
 * A film's picture packets, copied as they are; only their times are counted from the film's {@link
 * TimeZero}.
 */
final class PictureCopy implements PictureFeed {

  static {
    Ffmpeg.load();
  }

  private final PicturePackets from;
  private final AVStream to;
  private final AVPacket packet = allocated(av_packet_alloc());
  private final Path film;
  private final long zero;
  private final double endSeconds;
  private boolean waiting;
  private boolean ended;

  /**
   * @param neededSeconds how much of the film has to be there
   */
  PictureCopy(Path film, double neededSeconds, AVFormatContext output) {
    this.film = film;
    from = new PicturePackets(film);
    AVFormatContext input = from.input();
    AVStream source = from.stream();
    to = allocated(avformat_new_stream(output, null));
    avcodec_parameters_copy(to.codecpar(), from.codecpar());
    to.codecpar().codec_tag(0);
    to.time_base(source.time_base());
    to.avg_frame_rate(source.avg_frame_rate());
    to.sample_aspect_ratio(source.sample_aspect_ratio());
    zero = Math.round(TimeZero.of(input) / TimeZero.seconds(source.time_base()));
    endSeconds = Math.min(Probe.endOf(input, source), TimeZero.of(input) + neededSeconds);
  }

  @Override
  public boolean copies() {
    return true;
  }

  @Override
  public void writeUntil(double seconds, PacketSink sink) {
    while (!ended) {
      if (!waiting && !read()) {
        Probe.requireWhole(film, from.reachedSeconds(), endSeconds);
        ended = true;
        return;
      }
      if (packet.dts() != AV_NOPTS_VALUE
          && packet.dts() * TimeZero.seconds(to.time_base()) > seconds) {
        return;
      }
      waiting = false;
      sink.write(packet);
    }
  }

  /** Reads the next picture packet and stamps it in the output's time. */
  private boolean read() {
    waiting = from.next(packet);
    if (waiting) {
      Ffmpeg.moveTo(to, packet, from.stream(), zero);
    }
    return waiting;
  }

  @Override
  public void close() {
    av_packet_free(packet);
    from.close();
  }
}

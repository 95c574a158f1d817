package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_copy;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;

import java.nio.file.Path;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;

/**
 * A film's picture packets, copied as they are; only their times are moved so that they begin at 0.
 */
final class PictureCopy implements PictureFeed {

  private final AVFormatContext input;
  private final AVStream from;
  private final AVStream to;
  private final AVPacket packet = allocated(av_packet_alloc());
  private final long startTime;
  private boolean waiting;
  private boolean ended;

  PictureCopy(Path film, AVFormatContext output) {
    input = Ffmpeg.openInput(film);
    from = input.streams(Probe.pictureStream(input));
    to = allocated(avformat_new_stream(output, null));
    avcodec_parameters_copy(to.codecpar(), from.codecpar());
    to.codecpar().codec_tag(0);
    to.time_base(from.time_base());
    to.avg_frame_rate(from.avg_frame_rate());
    to.sample_aspect_ratio(from.sample_aspect_ratio());
    startTime = from.start_time() == AV_NOPTS_VALUE ? 0 : from.start_time();
  }

  @Override
  public boolean copies() {
    return true;
  }

  @Override
  public void writeUntil(double seconds, PacketSink sink) {
    while (!ended) {
      if (!waiting && !read()) {
        ended = true;
        return;
      }
      if (packet.dts() != AV_NOPTS_VALUE
          && packet.dts() * Probe.seconds(to.time_base()) > seconds) {
        return;
      }
      waiting = false;
      sink.write(packet);
    }
  }

  /** Reads the next picture packet and stamps it in the output's time. */
  private boolean read() {
    while (av_read_frame(input, packet) >= 0) {
      if (packet.stream_index() == from.index()) {
        if (packet.pts() != AV_NOPTS_VALUE) {
          packet.pts(packet.pts() - startTime);
        }
        if (packet.dts() != AV_NOPTS_VALUE) {
          packet.dts(packet.dts() - startTime);
        }
        av_packet_rescale_ts(packet, from.time_base(), to.time_base());
        packet.stream_index(to.index());
        packet.pos(-1);
        waiting = true;
        return true;
      }
      av_packet_unref(packet);
    }
    return false;
  }

  @Override
  public void close() {
    av_packet_free(packet);
    avformat_close_input(input);
  }
}

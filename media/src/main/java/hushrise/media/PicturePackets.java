package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_MPEG4;
import static org.bytedeco.ffmpeg.global.avcodec.av_bsf_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_bsf_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_bsf_get_by_name;
import static org.bytedeco.ffmpeg.global.avcodec.av_bsf_init;
import static org.bytedeco.ffmpeg.global.avcodec.av_bsf_receive_packet;
import static org.bytedeco.ffmpeg.global.avcodec.av_bsf_send_packet;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_copy;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;

import java.nio.file.Path;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVBSFContext;
import org.bytedeco.ffmpeg.avcodec.AVCodecParameters;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;

/**
 * A film's picture packets one after another, in the order in which they are decoded, each with the
 * time at which it is shown. For one thread.
 */
final class PicturePackets implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  /** Among how many packets at the beginning one without a time is looked for. */
  private static final int LOOKED_AT = 60;

  private final Path film;
  private final AVFormatContext input;
  private final AVStream stream;
  private final AVPacket raw = allocated(av_packet_alloc());
  private final Optional<AVBSFContext> unpacked;
  private final Optional<ShownTimes> times;
  private double reachedSeconds;
  private boolean ended;

  /**
   * @throws hushrise.core.Problem when the film cannot be read
   */
  PicturePackets(Path film) {
    this.film = film;
    boolean lacking = lacksTimes(film);
    input = Ffmpeg.openInput(film);
    stream = input.streams(Probe.pictureStream(input));
    unpacked =
        lacking && stream.codecpar().codec_id() == AV_CODEC_ID_MPEG4
            ? Optional.of(unpacking(stream))
            : Optional.empty();
    times = lacking ? ShownTimes.of(stream, codecpar()) : Optional.empty();
  }

  /**
   * Whether some of a film's packets do not say when they are shown: AVI knows no such times, and
   * MPEG program streams give few.
   */
  private static boolean lacksTimes(Path film) {
    AVFormatContext input = Ffmpeg.openInput(film);
    AVPacket packet = allocated(av_packet_alloc());
    try {
      int index = Probe.pictureStream(input);
      int seen = 0;
      while (seen < LOOKED_AT && Ffmpeg.read(input, packet, film)) {
        boolean ours = packet.stream_index() == index;
        boolean lacking = ours && packet.pts() == AV_NOPTS_VALUE;
        av_packet_unref(packet);
        if (lacking) {
          return true;
        }
        seen += ours ? 1 : 0;
      }
      return false;
    } finally {
      av_packet_free(packet);
      avformat_close_input(input);
    }
  }

  /**
   * Takes pictures apart that share a packet, as some AVI files have them: such a packet has two
   * times at which it is shown.
   */
  private static AVBSFContext unpacking(AVStream stream) {
    AVBSFContext filter = new AVBSFContext(null);
    av_bsf_alloc(av_bsf_get_by_name("mpeg4_unpack_bframes"), filter);
    avcodec_parameters_copy(filter.par_in(), stream.codecpar());
    filter.time_base_in(stream.time_base());
    av_bsf_init(filter);
    return filter;
  }

  AVFormatContext input() {
    return input;
  }

  AVStream stream() {
    return stream;
  }

  /** What its packets are coded with. */
  AVCodecParameters codecpar() {
    return unpacked.map(AVBSFContext::par_out).orElseGet(stream::codecpar);
  }

  /** Where the last packet that was read ends, in seconds of the stream's own time. */
  double reachedSeconds() {
    return reachedSeconds;
  }

  /**
   * Reads the next one; false after the last.
   *
   * @throws hushrise.core.Problem when the film cannot be read any further
   */
  boolean next(AVPacket packet) {
    if (times.isEmpty()) {
      return coded(packet);
    }
    ShownTimes shown = times.get();
    while (!shown.next(packet)) {
      if (ended) {
        return false;
      }
      if (coded(raw)) {
        shown.add(raw);
      } else {
        shown.end();
        ended = true;
      }
    }
    return true;
  }

  /** The next picture's packet as it is coded. */
  private boolean coded(AVPacket packet) {
    if (unpacked.isEmpty()) {
      return read(packet);
    }
    AVBSFContext filter = unpacked.get();
    while (av_bsf_receive_packet(filter, packet) < 0) {
      if (!read(packet)) {
        return false;
      }
      av_bsf_send_packet(filter, packet);
    }
    return true;
  }

  private boolean read(AVPacket packet) {
    while (Ffmpeg.read(input, packet, film)) {
      reachedSeconds = Math.max(reachedSeconds, Ffmpeg.endOf(input, packet));
      if (packet.stream_index() == stream.index()) {
        return true;
      }
      av_packet_unref(packet);
    }
    return false;
  }

  @Override
  public void close() {
    times.ifPresent(ShownTimes::close);
    unpacked.ifPresent(filter -> av_bsf_free(filter));
    av_packet_free(raw);
    avformat_close_input(input);
  }
}

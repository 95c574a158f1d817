package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_flush_buffers;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_to_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avformat.AVSEEK_FLAG_BACKWARD;
import static org.bytedeco.ffmpeg.global.avformat.av_seek_frame;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;

import hushrise.core.Problem;
import java.nio.file.Path;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;

/** Decodes the frames of a film's picture one after another, from any place. For one thread. */
final class PictureDecoder implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  private final AVFormatContext format;
  private final AVStream stream;
  private final AVCodecContext codec;
  private final AVPacket packet = allocated(av_packet_alloc());
  private final AVFrame frame = allocated(av_frame_alloc());
  private final Path file;
  private final double zeroSeconds;
  private final Orientation orientation;
  private Optional<Problem> failure = Optional.empty();
  private final FrameTimes times;
  private long frameTicks;
  private boolean atEnd;
  private double reachedSeconds;

  PictureDecoder(Path file) {
    this.file = file;
    format = Ffmpeg.openInput(file);
    int index = Probe.pictureStream(format);
    var decoder =
        index < 0 ? null : avcodec_find_decoder(format.streams(index).codecpar().codec_id());
    if (decoder == null) {
      avformat_close_input(format);
      throw new Problem(
          index < 0
              ? "%s has no picture: choose a film.".formatted(file)
              : "The picture of %s is in a coding that cannot be read: convert it to H.264 first."
                  .formatted(file));
    }
    stream = format.streams(index);
    times = new FrameTimes(stream);
    zeroSeconds = TimeZero.of(format);
    orientation = Orientation.of(stream.codecpar());
    codec = allocated(avcodec_alloc_context3(decoder));
    avcodec_parameters_to_context(codec, stream.codecpar());
    codec.pkt_timebase(stream.time_base());
    codec.thread_count(0);
    if (avcodec_open2(codec, decoder, (AVDictionary) null) < 0) {
      close();
      throw new Problem(
          "The picture of %s cannot be decoded: it may be damaged; copy it again from its source."
              .formatted(file));
    }
  }

  AVCodecContext codec() {
    return codec;
  }

  AVStream stream() {
    return stream;
  }

  /** How its frames have to be turned before they are looked at. */
  Orientation orientation() {
    return orientation;
  }

  /**
   * Goes to the last frame from which decoding can begin at or before a time, in seconds from zero.
   */
  void seek(double seconds) {
    long at = Math.round((zeroSeconds + seconds) / TimeZero.seconds(stream.time_base()));
    av_seek_frame(format, stream.index(), at, AVSEEK_FLAG_BACKWARD);
    avcodec_flush_buffers(codec);
    times.reset();
    atEnd = false;
  }

  /** Decodes the next frame; false after the last. It is valid until the next call. */
  boolean next() {
    while (true) {
      if (avcodec_receive_frame(codec, frame) >= 0) {
        frameTicks = times.of(frame);
        return true;
      }
      if (atEnd) {
        return false;
      }
      readPacket();
    }
  }

  private void readPacket() {
    while (readAny()) {
      boolean ours = packet.stream_index() == stream.index();
      if (ours) {
        avcodec_send_packet(codec, packet);
      }
      av_packet_unref(packet);
      if (ours) {
        return;
      }
    }
    avcodec_send_packet(codec, null);
    atEnd = true;
  }

  /** What cannot be read ends the film here; {@link #requireWhole(double)} tells. */
  private boolean readAny() {
    try {
      boolean any = Ffmpeg.read(format, packet, file);
      reachedSeconds =
          any ? Math.max(reachedSeconds, Ffmpeg.endOf(format, packet)) : reachedSeconds;
      return any;
    } catch (Problem e) {
      failure = Optional.of(e);
      return false;
    }
  }

  /**
   * Makes sure that the end that was reached is the film's own, or that enough of it was there.
   *
   * @param neededSeconds how much is enough
   * @throws Problem when the rest of it could not be read
   */
  void requireWhole(double neededSeconds) {
    failure.ifPresent(
        e -> {
          throw new Problem(e.getMessage(), e);
        });
    Probe.requireWhole(
        file,
        reachedSeconds,
        Math.min(Probe.endOf(format, stream), TimeZero.of(format) + neededSeconds));
  }

  AVFrame frame() {
    return frame;
  }

  /** When the present frame is shown, in seconds from the film's {@link TimeZero}. */
  double frameSeconds() {
    return frameTicks * TimeZero.seconds(stream.time_base()) - zeroSeconds;
  }

  @Override
  public void close() {
    av_packet_free(packet);
    av_frame_free(frame);
    avcodec_free_context(codec);
    avformat_close_input(format);
  }
}

package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_get_name;
import static org.bytedeco.ffmpeg.global.avformat.AV_DISPOSITION_ATTACHED_PIC;
import static org.bytedeco.ffmpeg.global.avformat.av_find_best_stream;
import static org.bytedeco.ffmpeg.global.avformat.av_guess_frame_rate;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_AUDIO;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_VIDEO;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.AV_TIME_BASE;

import hushrise.core.Problem;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Set;
import org.bytedeco.ffmpeg.avcodec.AVCodec;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVRational;

/**
 * What a media file holds, found without decoding it.
 *
 * @param file the file
 * @param seconds how long it says it is
 * @param sound its first or best sound stream
 * @param picture its first or best picture stream; cover pictures do not count
 */
public record Probe(Path file, double seconds, Optional<Sound> sound, Optional<Picture> picture) {

  private static final Set<String> STILL_CODECS = Set.of("png", "mjpeg", "webp", "bmp", "tiff");

  /**
   * A sound stream.
   *
   * @param codec FFmpeg's name for it
   * @param sampleRate in Hz
   * @param channels how many
   */
  public record Sound(String codec, int sampleRate, int channels) {}

  /**
   * A picture stream.
   *
   * @param codec FFmpeg's name for it
   * @param width in pixels
   * @param height in pixels
   * @param rate frames per second
   * @param seconds how long the picture is
   */
  public record Picture(String codec, int width, int height, FrameRate rate, double seconds) {}

  /**
   * Looks at a file.
   *
   * @throws Problem when it cannot be read or holds neither sound nor picture
   */
  public static Probe of(Path file) {
    AVFormatContext context = Ffmpeg.openInput(file);
    try {
      double seconds =
          context.duration() == AV_NOPTS_VALUE ? 0 : context.duration() / (double) AV_TIME_BASE;
      Probe probe = new Probe(file, seconds, soundOf(context), pictureOf(context, seconds));
      if (probe.sound.isEmpty() && probe.picture.isEmpty()) {
        throw new Problem(
            "%s holds neither sound nor picture: choose another file.".formatted(file));
      }
      return probe;
    } finally {
      avformat_close_input(context);
    }
  }

  /** Whether it is a single picture and no film. */
  public boolean isStill() {
    return sound.isEmpty()
        && picture.filter(p -> STILL_CODECS.contains(p.codec()) && p.seconds() < 1).isPresent();
  }

  /** The index of the best sound stream, negative without one. */
  static int soundStream(AVFormatContext context) {
    return av_find_best_stream(context, AVMEDIA_TYPE_AUDIO, -1, -1, (AVCodec) null, 0);
  }

  /** The index of the best picture stream that is no cover picture, negative without one. */
  static int pictureStream(AVFormatContext context) {
    int index = av_find_best_stream(context, AVMEDIA_TYPE_VIDEO, -1, -1, (AVCodec) null, 0);
    boolean cover =
        index >= 0 && (context.streams(index).disposition() & AV_DISPOSITION_ATTACHED_PIC) != 0;
    return cover ? -1 : index;
  }

  private static Optional<Sound> soundOf(AVFormatContext context) {
    int index = soundStream(context);
    if (index < 0) {
      return Optional.empty();
    }
    var codec = context.streams(index).codecpar();
    if (codec.sample_rate() <= 0 || avcodec_find_decoder(codec.codec_id()) == null) {
      return Optional.empty();
    }
    return Optional.of(
        new Sound(
            avcodec_get_name(codec.codec_id()).getString(),
            codec.sample_rate(),
            codec.ch_layout().nb_channels()));
  }

  private static Optional<Picture> pictureOf(AVFormatContext context, double containerSeconds) {
    int index = pictureStream(context);
    if (index < 0) {
      return Optional.empty();
    }
    AVStream stream = context.streams(index);
    var codec = stream.codecpar();
    double seconds =
        stream.duration() == AV_NOPTS_VALUE
            ? containerSeconds
            : stream.duration() * seconds(stream.time_base());
    return Optional.of(
        new Picture(
            avcodec_get_name(codec.codec_id()).getString(),
            codec.width(),
            codec.height(),
            rateOf(context, stream),
            seconds));
  }

  private static FrameRate rateOf(AVFormatContext context, AVStream stream) {
    AVRational rate = av_guess_frame_rate(context, stream, null);
    return rate.num() < 1 || rate.den() < 1
        ? FrameRate.DEFAULT
        : new FrameRate(rate.num(), rate.den());
  }

  static double seconds(AVRational timeBase) {
    return timeBase.num() / (double) timeBase.den();
  }
}

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
import static org.bytedeco.ffmpeg.global.avutil.av_dict_get;

import hushrise.core.Problem;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.bytedeco.ffmpeg.avcodec.AVCodec;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionaryEntry;
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

  /** A rate this much over the average is no rate of pictures. */
  private static final double MOST_OVER_AVERAGE = 1.5;

  /** How much may be missing at the end before a film counts as cut short, in seconds. */
  private static final double LEAST_MISSING = 0.5;

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
   * @param width in pixels, as it is shown
   * @param height in pixels, as it is shown
   * @param rate frames per second
   * @param seconds where the picture ends, counted from the file’s {@link TimeZero}; where the file
   *     says more than there is, where its last picture ends
   * @param cutShort whether the file says more than there is
   */
  public record Picture(
      String codec, int width, int height, FrameRate rate, double seconds, boolean cutShort) {}

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
      Probe probe = new Probe(file, seconds, soundOf(context), pictureOf(context));
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

  private static Optional<Picture> pictureOf(AVFormatContext context) {
    int index = pictureStream(context);
    if (index < 0) {
      return Optional.empty();
    }
    AVStream stream = context.streams(index);
    var codec = stream.codecpar();
    if (codec.width() <= 0 || codec.height() <= 0) {
      return Optional.empty();
    }
    double end = PictureEnd.believed(context, stream, endOf(context, stream));
    double aspect = aspectOf(stream);
    int width = (int) Math.round(codec.width() * aspect);
    boolean lying = Orientation.of(codec).transposed();
    return Optional.of(
        new Picture(
            avcodec_get_name(codec.codec_id()).getString(),
            lying ? codec.height() : width,
            lying ? width : codec.height(),
            rateOf(context, stream),
            Math.max(0, end - TimeZero.of(context)),
            end < endOf(context, stream)));
  }

  /** How much wider than high a stream's pixels are shown. */
  static double aspectOf(AVStream stream) {
    AVRational ofStream = stream.sample_aspect_ratio();
    AVRational aspect = ofStream.num() > 0 ? ofStream : stream.codecpar().sample_aspect_ratio();
    return aspect.num() > 0 && aspect.den() > 0 ? aspect.num() / (double) aspect.den() : 1;
  }

  /** Where a file says that a picture ends, in seconds of its own time. */
  static double endOf(AVFormatContext context, AVStream stream) {
    double start =
        stream.start_time() == AV_NOPTS_VALUE
            ? 0
            : stream.start_time() * TimeZero.seconds(stream.time_base());
    if (stream.duration() != AV_NOPTS_VALUE) {
      return start + stream.duration() * TimeZero.seconds(stream.time_base());
    }
    OptionalDouble tagged = taggedEnd(stream);
    if (tagged.isPresent()) {
      return tagged.getAsDouble();
    }
    double begin =
        context.start_time() == AV_NOPTS_VALUE ? 0 : context.start_time() / (double) AV_TIME_BASE;
    return context.duration() == AV_NOPTS_VALUE
        ? start
        : begin + context.duration() / (double) AV_TIME_BASE;
  }

  /**
   * Refuses a film whose pictures end before the film says they do.
   *
   * @param reached where they end, in seconds of the stream's own time
   * @param end where the film says they do
   */
  static void requireWhole(Path film, double reached, double end) {
    if (end - reached > Math.max(LEAST_MISSING, end * 0.02)) {
      throw new Problem(
          "The picture of %s is cut short: it should last %.1f s and ends after %.1f s; copy the film again from its source."
              .formatted(film, end, reached));
    }
  }

  /** Matroska says where a stream ends in a tag such as {@code 00:01:36.040000000}. */
  private static OptionalDouble taggedEnd(AVStream stream) {
    AVDictionaryEntry entry = av_dict_get(stream.metadata(), "DURATION", null, 0);
    String tag = entry == null || entry.isNull() ? "" : entry.value().getString();
    if (!tag.matches("\\d+:\\d\\d:\\d\\d(\\.\\d+)?")) {
      return OptionalDouble.empty();
    }
    String[] parts = tag.split(":", -1);
    return OptionalDouble.of(
        Integer.parseInt(parts[0]) * 3600.0
            + Integer.parseInt(parts[1]) * 60.0
            + Double.parseDouble(parts[2]));
  }

  /**
   * A picture's frames in a second. Where frames come at no steady rate, their average: the rate
   * that a file then states may be that of its clock.
   */
  static FrameRate rateOf(AVFormatContext context, AVStream stream) {
    AVRational rate = av_guess_frame_rate(context, stream, null);
    AVRational average = stream.avg_frame_rate();
    boolean hasAverage = average.num() > 0 && average.den() > 0;
    boolean hasRate = rate.num() > 0 && rate.den() > 0;
    if (!hasRate && !hasAverage) {
      return FrameRate.DEFAULT;
    }
    boolean unsteady =
        hasAverage
            && hasRate
            && TimeZero.seconds(rate) > MOST_OVER_AVERAGE * TimeZero.seconds(average);
    AVRational taken = !hasRate || unsteady ? average : rate;
    FrameRate found = new FrameRate(taken.num(), taken.den());
    return found.isBelievable() ? found : FrameRate.DEFAULT;
  }
}

package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;

import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVRational;

/**
 * From where a file's times are counted, by everything that reads it: its sound, its picture, and
 * the packets that are copied.
 *
 * <p>A film's zero is where its picture starts, so that picture frames lie where timecode counts
 * them. Sound that starts earlier is kept: then zero lies as many whole picture frames earlier as
 * fit in, and the picture starts that much later. Sound alone starts at zero.
 */
final class TimeZero {

  private static final double NEARLY = 1e-4;

  private TimeZero() {}

  /** The zero of a file, in seconds of its streams' own time. */
  static double of(AVFormatContext format) {
    int picture = Probe.pictureStream(format);
    int sound = Probe.soundStream(format);
    if (picture < 0) {
      return sound < 0 ? 0 : startOf(format.streams(sound));
    }
    double start = startOf(format.streams(picture));
    double before = sound < 0 ? 0 : start - startOf(format.streams(sound));
    double rate = Probe.rateOf(format, format.streams(picture)).perSecond();
    return start - Math.max(0, Math.floor(before * rate + NEARLY)) / rate;
  }

  /** Where a stream starts, in seconds of its own time; 0 when it does not say. */
  static double startOf(AVStream stream) {
    return stream.start_time() == AV_NOPTS_VALUE
        ? 0
        : stream.start_time() * seconds(stream.time_base());
  }

  static double seconds(AVRational timeBase) {
    return timeBase.num() / (double) timeBase.den();
  }
}

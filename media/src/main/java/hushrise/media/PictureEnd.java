package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avformat.AVSEEK_FLAG_BACKWARD;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_seek_frame;
import static org.bytedeco.ffmpeg.global.avformat.avformat_index_get_entries_count;
import static org.bytedeco.ffmpeg.global.avformat.avformat_index_get_entry;

import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;

/** Where a film can be believed to end, as what a file says of itself need not be so. */
final class PictureEnd {

  /** How long before the stated end its last pictures are looked for, in seconds. */
  private static final double LOOK_BACK = 1;

  private PictureEnd() {}

  /**
   * The stated end where anything in the file lies near it, as the last picture may stand for long
   * while the sound goes on; else where everything ends. What was read of the file so far has to be
   * read anew afterwards.
   *
   * @param stated in seconds of the stream's own time
   */
  static double believed(AVFormatContext context, AVStream stream, double stated) {
    double tick = TimeZero.seconds(stream.time_base());
    double tolerance = Math.max(0.5, stated * 0.02);
    int entries = avformat_index_get_entries_count(stream);
    if (entries > 0
        && avformat_index_get_entry(stream, entries - 1).timestamp() * tick >= stated - tolerance) {
      return stated;
    }
    double reached = endAfter(context, stream, stated - LOOK_BACK, tick);
    if (reached < 0) {
      reached = endAfter(context, stream, 0, tick);
    }
    return reached < stated - tolerance ? Math.max(0, reached) : stated;
  }

  /** Where the last packet of any stream after a time ends; negative when there is none. */
  private static double endAfter(
      AVFormatContext context, AVStream stream, double seconds, double tick) {
    long from = Math.round(Math.max(0, seconds) / tick);
    if (av_seek_frame(context, stream.index(), from, AVSEEK_FLAG_BACKWARD) < 0 && seconds > 0) {
      return -1;
    }
    double end = -1;
    AVPacket packet = Ffmpeg.allocated(av_packet_alloc());
    while (av_read_frame(context, packet) >= 0) {
      end = Math.max(end, Ffmpeg.endOf(context, packet));
      av_packet_unref(packet);
    }
    av_packet_free(packet);
    return end;
  }
}

package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;

import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVFrame;

/**
 * When the frames that a decoder gives one after another are shown: when they say, or, as the last
 * ones of files that only say when pictures are decoded, a frame after the one before.
 */
final class FrameTimes {

  private final long usualTicks;
  private final long start;
  private long last = AV_NOPTS_VALUE;

  /**
   * @param stream whose frames they are
   */
  FrameTimes(AVStream stream) {
    double rate = TimeZero.seconds(stream.avg_frame_rate());
    double tick = TimeZero.seconds(stream.time_base());
    start = stream.start_time() == AV_NOPTS_VALUE ? 0 : stream.start_time();
    usualTicks = rate > 0 ? Math.max(1, Math.round(1 / (rate * tick))) : 1;
  }

  /**
   * When the next frame is shown, in ticks of its stream; at its start where that cannot be told.
   */
  long of(AVFrame frame) {
    long at = frame.best_effort_timestamp();
    if (at == AV_NOPTS_VALUE) {
      long ticks = frame.duration() > 0 ? frame.duration() : usualTicks;
      at = last == AV_NOPTS_VALUE ? start : last + ticks;
    }
    last = at;
    return at;
  }

  /** Forgets what came before, as what comes next need not follow it. */
  void reset() {
    last = AV_NOPTS_VALUE;
  }
}

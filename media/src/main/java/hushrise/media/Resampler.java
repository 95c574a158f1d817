package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_CHANNEL_ORDER_UNSPEC;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLTP;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_compare;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_default;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.avutil.av_opt_set_double;
import static org.bytedeco.ffmpeg.global.avutil.av_samples_set_silence;
import static org.bytedeco.ffmpeg.global.swresample.swr_alloc_set_opts2;
import static org.bytedeco.ffmpeg.global.swresample.swr_convert;
import static org.bytedeco.ffmpeg.global.swresample.swr_free;
import static org.bytedeco.ffmpeg.global.swresample.swr_get_out_samples;
import static org.bytedeco.ffmpeg.global.swresample.swr_init;
import static org.bytedeco.ffmpeg.global.swresample.swr_set_matrix;

import org.bytedeco.ffmpeg.avutil.AVChannelLayout;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swresample.SwrContext;
import org.bytedeco.javacpp.DoublePointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * Turns decoded sound of one rate, sample format and channel layout into planar floats of another
 * rate and layout. A stream may change any of them on its way; what takes the frames before such a
 * change reads past the end of those after it, so {@link #takes} has to be asked of each.
 */
final class Resampler implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  /** So high that a fold is never made softer. */
  private static final double NO_LIMIT = 1e6;

  private final int rate;
  private final int format;
  private final AVChannelLayout layout = new AVChannelLayout();
  private final SwrContext context = new SwrContext(null);

  /**
   * @param inRate of what comes in, in Hz
   * @param inFormat FFmpeg's sample format of it
   * @throws IllegalArgumentException when the one cannot be turned into the other
   */
  Resampler(
      int inRate, int inFormat, AVChannelLayout inLayout, int outRate, AVChannelLayout outLayout) {
    rate = inRate;
    format = inFormat;
    known(inLayout, layout);
    swr_alloc_set_opts2(
        context, outLayout, AV_SAMPLE_FMT_FLTP, outRate, layout, inFormat, inRate, 0, null);
    av_opt_set_double(context, "rematrix_maxval", NO_LIMIT, 0);
    keepLevel(layout.nb_channels(), outLayout.nb_channels());
    if (context.isNull() || swr_init(context) < 0) {
      close();
      throw new IllegalArgumentException("No way from these channels to those");
    }
  }

  /** Between mono and stereo what is the same on both sides keeps its level. */
  private void keepLevel(int in, int out) {
    if (in + out == 3 && !context.isNull()) {
      try (DoublePointer matrix = new DoublePointer(1.0 / in, 1.0 / in)) {
        swr_set_matrix(context, matrix, in);
      }
    }
  }

  /** A layout, or the usual one for its count of channels where it says no more than that. */
  static void known(AVChannelLayout of, AVChannelLayout into) {
    if (of.order() == AV_CHANNEL_ORDER_UNSPEC) {
      av_channel_layout_default(into, of.nb_channels());
    } else {
      av_channel_layout_copy(into, of);
    }
  }

  /** Whether a frame is of the rate, format and layout that this was made for. */
  boolean takes(AVFrame frame) {
    boolean sameChannels =
        frame.ch_layout().order() == AV_CHANNEL_ORDER_UNSPEC
            ? frame.ch_layout().nb_channels() == layout.nb_channels()
            : av_channel_layout_compare(frame.ch_layout(), layout) == 0;
    return sameChannels && frame.sample_rate() == rate && frame.format() == format;
  }

  int inRate() {
    return rate;
  }

  /** How many frames at most come out when some more go in. */
  int framesFor(int more) {
    return swr_get_out_samples(context, more);
  }

  /**
   * Turns some frames over; what came in before may come out with them.
   *
   * @param input null for the rest
   * @return how many came out, or a negative error
   */
  int convert(PointerPointer<?> input, int frames, PointerPointer<?> out, int capacity) {
    return swr_convert(context, out, capacity, input, frames);
  }

  /** Silence of what goes in. */
  AVFrame silence(int frames) {
    AVFrame quiet = Ffmpeg.allocated(av_frame_alloc());
    quiet.format(format);
    quiet.sample_rate(rate);
    av_channel_layout_copy(quiet.ch_layout(), layout);
    quiet.nb_samples(frames);
    av_frame_get_buffer(quiet, 0);
    av_samples_set_silence(quiet.extended_data(), 0, frames, layout.nb_channels(), format);
    return quiet;
  }

  @Override
  public void close() {
    if (!context.isNull()) {
      swr_free(context);
      context.setNull();
    }
  }
}

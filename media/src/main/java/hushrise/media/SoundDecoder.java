package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_to_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avformat.AVFMT_DURATION_FROM_BITRATE;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLTP;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_compare;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_default;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.swresample.swr_alloc_set_opts2;
import static org.bytedeco.ffmpeg.global.swresample.swr_convert;
import static org.bytedeco.ffmpeg.global.swresample.swr_free;
import static org.bytedeco.ffmpeg.global.swresample.swr_get_out_samples;
import static org.bytedeco.ffmpeg.global.swresample.swr_init;

import hushrise.core.Problem;
import java.nio.file.Path;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVChannelLayout;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swresample.SwrContext;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * Decodes a file's sound from start to end into planar floats at a wanted rate, mono or stereo.
 * More than two channels are folded to stereo by FFmpeg's standard coefficients (ITU-R BS.775).
 * Sound that starts later than the file's picture is preceded by silence.
 */
final class SoundDecoder implements AutoCloseable {

  /** Receives decoded sound. */
  interface Sink {

    /**
     * Takes the next frames.
     *
     * @param left the left or only channel
     * @param right the right channel; the left one again for mono
     * @param frames how many of them to take
     * @param fraction how much of the file has been read, 0 to 1
     */
    void take(float[] left, float[] right, int frames, double fraction);
  }

  private final Path file;
  private final AVFormatContext format;
  private final AVStream stream;
  private final AVCodecContext codec;
  private final SwrContext resampler;
  private final int outRate;
  private final int outChannels;
  private final AVPacket packet = allocated(av_packet_alloc());
  private final AVFrame frame = allocated(av_frame_alloc());
  private FloatPointer[] out = new FloatPointer[0];
  private final PointerPointer<FloatPointer> outPlanes = new PointerPointer<>(2);
  private int outCapacity;
  private float[] left = new float[0];
  private float[] right = new float[0];
  private boolean started;
  private double fraction;
  private long goodFrames;

  SoundDecoder(Path file, int outRate) {
    this.file = file;
    this.outRate = outRate;
    format = Ffmpeg.openInput(file);
    int index = Probe.soundStream(format);
    if (index < 0) {
      avformat_close_input(format);
      throw new Problem("%s has no sound: choose another file.".formatted(file));
    }
    stream = format.streams(index);
    var decoder = avcodec_find_decoder(stream.codecpar().codec_id());
    if (decoder == null) {
      avformat_close_input(format);
      throw new Problem(
          "The sound of %s is in a coding that cannot be read: convert it to WAV or FLAC first."
              .formatted(file));
    }
    codec = allocated(avcodec_alloc_context3(decoder));
    avcodec_parameters_to_context(codec, stream.codecpar());
    codec.pkt_timebase(stream.time_base());
    if (avcodec_open2(codec, decoder, (AVDictionary) null) < 0) {
      close();
      throw new Problem(
          "The sound of %s cannot be decoded: it may be damaged; copy it again from its source."
              .formatted(file));
    }
    AVChannelLayout in = new AVChannelLayout();
    if (codec.ch_layout().order() == 0) {
      av_channel_layout_default(in, codec.ch_layout().nb_channels());
    } else {
      av_channel_layout_copy(in, codec.ch_layout());
    }
    outChannels = in.nb_channels() == 1 ? 1 : 2;
    AVChannelLayout outLayout = new AVChannelLayout();
    av_channel_layout_default(outLayout, outChannels);
    SwrContext made = new SwrContext(null);
    swr_alloc_set_opts2(
        made,
        outLayout,
        AV_SAMPLE_FMT_FLTP,
        outRate,
        in,
        codec.sample_fmt(),
        codec.sample_rate(),
        0,
        null);
    resampler = made;
    if (av_channel_layout_compare(in, outLayout) > 0) {
      org.bytedeco.ffmpeg.global.avutil.av_opt_set_double(resampler, "rematrix_maxval", 1.0, 0);
    }
    if (swr_init(resampler) < 0) {
      close();
      throw new Problem(
          "The sound of %s has a channel layout that cannot be folded to stereo: convert it first."
              .formatted(file));
    }
  }

  int channels() {
    return outChannels;
  }

  /**
   * Decodes everything.
   *
   * @throws Problem when nothing at all could be decoded
   */
  void decodeTo(Sink sink) {
    while (av_read_frame(format, packet) >= 0) {
      if (packet.stream_index() == stream.index()) {
        noteFraction();
        if (avcodec_send_packet(codec, packet) >= 0) {
          receive(sink);
        }
      }
      av_packet_unref(packet);
    }
    avcodec_send_packet(codec, null);
    receive(sink);
    convert(null, 0, sink);
    if (goodFrames == 0) {
      throw new Problem(
          "%s holds no sound that can be decoded: it may be cut short; copy it again from its source."
              .formatted(file));
    }
    requireWhole();
  }

  /** Refuses a file whose container states a length that its sound does not reach. */
  private void requireWhole() {
    if (stream.duration() == AV_NOPTS_VALUE
        || format.duration_estimation_method() == AVFMT_DURATION_FROM_BITRATE) {
      return;
    }
    double stated = stream.duration() * Probe.seconds(stream.time_base());
    double found = goodFrames / (double) codec.sample_rate();
    if (stated - found > Math.max(0.5, stated * 0.02)) {
      throw new Problem(
          "%s is cut short: it should last %.1f s and holds %.1f s; copy it again from its source."
              .formatted(file, stated, found));
    }
  }

  private void noteFraction() {
    long size =
        format.pb() == null ? 0 : org.bytedeco.ffmpeg.global.avformat.avio_size(format.pb());
    if (size > 0 && packet.pos() > 0) {
      fraction = Math.min(1, packet.pos() / (double) size);
    }
  }

  private void receive(Sink sink) {
    while (avcodec_receive_frame(codec, frame) >= 0) {
      if (!started) {
        started = true;
        padToStart(sink);
      }
      if (frame.sample_rate() == codec.sample_rate()) {
        goodFrames += frame.nb_samples();
        convert(frame.extended_data(), frame.nb_samples(), sink);
      }
    }
  }

  /** Silence in place of what a late first packet leaves out, relative to the file's start. */
  private void padToStart(Sink sink) {
    long begin = format.start_time() == AV_NOPTS_VALUE ? 0 : format.start_time();
    long first = frame.best_effort_timestamp();
    if (first == AV_NOPTS_VALUE) {
      return;
    }
    double seconds = first * Probe.seconds(stream.time_base()) - begin / 1e6;
    long frames = Math.round(seconds * outRate);
    if (frames > 0 && seconds < 3600 && Probe.pictureStream(format) >= 0) {
      ensure((int) Math.min(frames, 1 << 16));
      java.util.Arrays.fill(left, 0);
      java.util.Arrays.fill(right, 0);
      for (long done = 0; done < frames; done += left.length) {
        sink.take(left, right, (int) Math.min(left.length, frames - done), fraction);
      }
    }
  }

  private void convert(PointerPointer<?> input, int frames, Sink sink) {
    ensure(Math.max(1024, swr_get_out_samples(resampler, frames)));
    int got = swr_convert(resampler, outPlanes, outCapacity, input, frames);
    if (got > 0) {
      out[0].position(0).get(left, 0, got);
      if (outChannels == 2) {
        out[1].position(0).get(right, 0, got);
      }
      sink.take(left, outChannels == 2 ? right : left, got, fraction);
    }
  }

  private void ensure(int frames) {
    if (frames > outCapacity) {
      for (FloatPointer p : out) {
        p.deallocate();
      }
      outCapacity = frames;
      out = new FloatPointer[] {new FloatPointer(frames), new FloatPointer(frames)};
      outPlanes.put(0, out[0]).put(1, out[1]);
      left = new float[frames];
      right = new float[frames];
    }
  }

  @Override
  public void close() {
    for (FloatPointer p : out) {
      p.deallocate();
    }
    outPlanes.deallocate();
    av_packet_free(packet);
    av_frame_free(frame);
    if (resampler != null) {
      swr_free(resampler);
    }
    avcodec_free_context(codec);
    avformat_close_input(format);
  }
}

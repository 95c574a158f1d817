package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_CAP_VARIABLE_FRAME_SIZE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_FLAG_GLOBAL_HEADER;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_encoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_encoder_by_name;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_packet;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_frame;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLT;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLTP;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_S16;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_S32;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_S32P;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_default;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_make_writable;
import static org.bytedeco.ffmpeg.global.avutil.av_make_q;
import static org.bytedeco.ffmpeg.global.avutil.av_opt_set_int;
import static org.bytedeco.ffmpeg.global.swresample.SWR_DITHER_TRIANGULAR;
import static org.bytedeco.ffmpeg.global.swresample.swr_alloc_set_opts2;
import static org.bytedeco.ffmpeg.global.swresample.swr_convert;
import static org.bytedeco.ffmpeg.global.swresample.swr_free;
import static org.bytedeco.ffmpeg.global.swresample.swr_init;

import org.bytedeco.ffmpeg.avcodec.AVCodec;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avutil.AVChannelLayout;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swresample.SwrContext;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.PointerPointer;

/** Encodes stereo floats into packets, from a first frame to a last one. */
final class SampleEncoder implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  private static final int FREE_FRAME_SIZE = 4096;

  private final AVCodecContext codec;
  private final SwrContext converter = new SwrContext(null);
  private final AVFrame frame = allocated(av_frame_alloc());
  private final AVPacket packet = allocated(av_packet_alloc());
  private final int frameSize;
  private final FloatPointer[] planes;
  private final PointerPointer<FloatPointer> planesPointer = new PointerPointer<>(2);
  private long encodedFrames;

  /**
   * @param globalHeader whether the container keeps what a decoder has to know
   * @param firstFrame the time of the first frame that will be given
   */
  SampleEncoder(
      OutputFormat format, int sampleRate, int bitRate, boolean globalHeader, long firstFrame) {
    encodedFrames = firstFrame;
    AVCodec encoder = encoderOf(format);
    codec = allocated(avcodec_alloc_context3(encoder));
    AVChannelLayout stereo = new AVChannelLayout();
    av_channel_layout_default(stereo, 2);
    codec.sample_rate(sampleRate);
    av_channel_layout_copy(codec.ch_layout(), stereo);
    codec.sample_fmt(sampleFormat(format.coding()));
    codec.bit_rate(bitRate);
    codec.time_base(av_make_q(1, sampleRate));
    if (sampleFormat(format.coding()) == AV_SAMPLE_FMT_S32
        || sampleFormat(format.coding()) == AV_SAMPLE_FMT_S32P) {
      codec.bits_per_raw_sample(24);
    }
    if (globalHeader) {
      codec.flags(codec.flags() | AV_CODEC_FLAG_GLOBAL_HEADER);
    }
    require(avcodec_open2(codec, encoder, (AVDictionary) null), "encoder");
    require(
        swr_alloc_set_opts2(
            converter,
            stereo,
            codec.sample_fmt(),
            sampleRate,
            stereo,
            AV_SAMPLE_FMT_FLTP,
            sampleRate,
            0,
            null),
        "converter");
    if (format.coding() == SoundCoding.PCM_16) {
      // as WavWriter does: triangular noise of two steps, so that what is quieter than one is heard
      require(av_opt_set_int(converter, "dither_method", SWR_DITHER_TRIANGULAR, 0), "dither");
    }
    require(swr_init(converter), "converter");
    boolean free =
        (encoder.capabilities() & AV_CODEC_CAP_VARIABLE_FRAME_SIZE) != 0 || codec.frame_size() == 0;
    frameSize = free ? FREE_FRAME_SIZE : codec.frame_size();
    planes = new FloatPointer[] {new FloatPointer(frameSize), new FloatPointer(frameSize)};
    planesPointer.put(0, planes[0]).put(1, planes[1]);
    frame.format(codec.sample_fmt());
    frame.sample_rate(sampleRate);
    av_channel_layout_copy(frame.ch_layout(), stereo);
    frame.nb_samples(frameSize);
    require(av_frame_get_buffer(frame, 0), "frame");
  }

  private static AVCodec encoderOf(OutputFormat format) {
    return switch (format.coding()) {
      case MP3 -> avcodec_find_encoder_by_name("libmp3lame");
      case OPUS -> avcodec_find_encoder_by_name("libopus");
      default -> avcodec_find_encoder(format.soundCodec());
    };
  }

  private static int sampleFormat(SoundCoding coding) {
    return switch (coding) {
      case PCM_16 -> AV_SAMPLE_FMT_S16;
      case PCM_24, FLAC -> AV_SAMPLE_FMT_S32;
      case ALAC -> AV_SAMPLE_FMT_S32P;
      case PCM_32_FLOAT, OPUS -> AV_SAMPLE_FMT_FLT;
      case AAC, MP3 -> AV_SAMPLE_FMT_FLTP;
    };
  }

  static void require(int result, String what) {
    if (result < 0) {
      throw new IllegalStateException(
          "The sound %s could not be set up: %s".formatted(what, Ffmpeg.textOf(result)));
    }
  }

  AVCodecContext codec() {
    return codec;
  }

  /** How many frames it takes at once, but for the last time. */
  int frameSize() {
    return frameSize;
  }

  /**
   * Encodes frames.
   *
   * @param frames {@link #frameSize}, or fewer at the end
   * @param sink takes the packets, stamped in sample frames
   */
  void encode(float[] left, float[] right, int offset, int frames, PacketSink sink) {
    planes[0].put(left, offset, frames);
    planes[1].put(right, offset, frames);
    frame.nb_samples(frameSize);
    require(av_frame_make_writable(frame), "frame");
    require(swr_convert(converter, frame.data(), frames, planesPointer, frames), "samples");
    frame.nb_samples(frames);
    frame.pts(encodedFrames);
    encodedFrames += frames;
    require(avcodec_send_frame(codec, frame), "samples");
    receive(sink);
  }

  /** Hands over everything that the encoder holds back. */
  void finish(PacketSink sink) {
    require(avcodec_send_frame(codec, null), "end");
    receive(sink);
  }

  private void receive(PacketSink sink) {
    while (avcodec_receive_packet(codec, packet) >= 0) {
      sink.write(packet);
    }
  }

  @Override
  public void close() {
    planes[0].deallocate();
    planes[1].deallocate();
    planesPointer.deallocate();
    swr_free(converter);
    av_frame_free(frame);
    av_packet_free(packet);
    avcodec_free_context(codec);
  }
}

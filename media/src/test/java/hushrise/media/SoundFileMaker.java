package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_CAP_VARIABLE_FRAME_SIZE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_CONFIG_SAMPLE_FORMAT;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_FLAG_GLOBAL_HEADER;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_encoder_by_name;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_get_supported_config;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_from_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_packet;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_frame;
import static org.bytedeco.ffmpeg.global.avformat.AVFMT_GLOBALHEADER;
import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLT;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_from_string;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_make_writable;
import static org.bytedeco.ffmpeg.global.avutil.av_make_q;
import static org.bytedeco.ffmpeg.global.swresample.swr_alloc_set_opts2;
import static org.bytedeco.ffmpeg.global.swresample.swr_convert;
import static org.bytedeco.ffmpeg.global.swresample.swr_free;
import static org.bytedeco.ffmpeg.global.swresample.swr_init;

import java.nio.file.Path;
import java.util.function.DoubleUnaryOperator;
import org.bytedeco.ffmpeg.avcodec.AVCodec;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVChannelLayout;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swresample.SwrContext;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.Pointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * Makes a sound file in any coding, container, rate and channel layout that FFmpeg's libraries
 * write: the foreign files of the tests.
 *
 * @param encoder an encoder's name, such as {@code pcm_s16le}
 * @param sampleRate in Hz
 * @param layout a channel layout's name, such as {@code stereo} or {@code 5.1}
 * @param seconds how long
 */
record SoundFileMaker(String encoder, int sampleRate, String layout, int seconds) {

  /**
   * Writes the same signal into every channel.
   *
   * @param file its ending chooses the container
   * @param amplitudeAt the signal, from seconds to an amplitude of -1 to 1
   */
  Path write(Path file, DoubleUnaryOperator amplitudeAt) {
    AVFormatContext output = new AVFormatContext(null);
    check(avformat_alloc_output_context2(output, null, null, file.toString()));
    AVCodec codec = avcodec_find_encoder_by_name(encoder);
    assertThat(codec).as(encoder).isNotNull();
    AVCodecContext context = avcodec_alloc_context3(codec);
    AVChannelLayout channels = new AVChannelLayout();
    check(av_channel_layout_from_string(channels, layout));
    av_channel_layout_copy(context.ch_layout(), channels);
    context.sample_rate(sampleRate);
    context.sample_fmt(firstSampleFormat(context, codec));
    context.bit_rate(192_000);
    context.time_base(av_make_q(1, sampleRate));
    context.strict_std_compliance(-2);
    if ((output.oformat().flags() & AVFMT_GLOBALHEADER) != 0) {
      context.flags(context.flags() | AV_CODEC_FLAG_GLOBAL_HEADER);
    }
    check(avcodec_open2(context, codec, (AVDictionary) null));
    AVStream stream = avformat_new_stream(output, null);
    stream.time_base(context.time_base());
    check(avcodec_parameters_from_context(stream.codecpar(), context));
    AVIOContext io = new AVIOContext(null);
    check(avio_open(io, "file:" + file, AVIO_FLAG_WRITE));
    output.pb(io);
    AVDictionary options = new AVDictionary();
    if (file.toString().endsWith(".m4a")) {
      av_dict_set(options, "movflags", "faststart", 0);
    }
    check(avformat_write_header(output, options));
    encode(output, stream, context, codec, amplitudeAt);
    check(av_write_trailer(output));
    avio_closep(output.pb());
    avcodec_free_context(context);
    avformat_free_context(output);
    return file;
  }

  private static int firstSampleFormat(AVCodecContext context, AVCodec codec) {
    PointerPointer<Pointer> formats = new PointerPointer<>(1);
    check(
        avcodec_get_supported_config(
            context, codec, AV_CODEC_CONFIG_SAMPLE_FORMAT, 0, formats, (IntPointer) null));
    return new IntPointer(formats.get()).get(0);
  }

  private void encode(
      AVFormatContext output,
      AVStream stream,
      AVCodecContext context,
      AVCodec codec,
      DoubleUnaryOperator amplitudeAt) {
    boolean free =
        (codec.capabilities() & AV_CODEC_CAP_VARIABLE_FRAME_SIZE) != 0 || context.frame_size() == 0;
    int block = free ? 1024 : context.frame_size();
    int channels = context.ch_layout().nb_channels();
    SwrContext converter = new SwrContext(null);
    AVChannelLayout shape = context.ch_layout();
    check(
        swr_alloc_set_opts2(
            converter,
            shape,
            context.sample_fmt(),
            sampleRate,
            shape,
            AV_SAMPLE_FMT_FLT,
            sampleRate,
            0,
            null));
    check(swr_init(converter));
    AVFrame frame = av_frame_alloc();
    frame.format(context.sample_fmt());
    frame.sample_rate(sampleRate);
    av_channel_layout_copy(frame.ch_layout(), shape);
    frame.nb_samples(block);
    check(av_frame_get_buffer(frame, 0));
    AVPacket packet = av_packet_alloc();
    FloatPointer samples = new FloatPointer((long) block * channels);
    PointerPointer<FloatPointer> plane = new PointerPointer<>(1);
    plane.put(0, samples);
    int length = seconds * sampleRate;
    for (int at = 0; at < length; at += block) {
      int n = Math.min(block, length - at);
      for (int i = 0; i < n * channels; i++) {
        int time = at + i / channels;
        samples.put(i, (float) amplitudeAt.applyAsDouble(time / (double) sampleRate));
      }
      check(av_frame_make_writable(frame));
      frame.nb_samples(n);
      check(swr_convert(converter, frame.data(), n, plane, n));
      frame.pts(at);
      check(avcodec_send_frame(context, frame));
      receive(output, stream, context, packet);
    }
    check(avcodec_send_frame(context, null));
    receive(output, stream, context, packet);
    av_packet_free(packet);
    av_frame_free(frame);
    swr_free(converter);
  }

  private static void receive(
      AVFormatContext output, AVStream stream, AVCodecContext context, AVPacket packet) {
    while (avcodec_receive_packet(context, packet) >= 0) {
      av_packet_rescale_ts(packet, context.time_base(), stream.time_base());
      check(av_interleaved_write_frame(output, packet));
    }
  }

  private static void check(int result) {
    assertThat(result).as(Ffmpeg.textOf(result)).isNotNegative();
  }
}

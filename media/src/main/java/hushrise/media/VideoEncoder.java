package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_FLAG_GLOBAL_HEADER;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_encoder_by_name;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_from_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_packet;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_frame;
import static org.bytedeco.ffmpeg.global.avformat.AVFMT_GLOBALHEADER;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_BGRA;
import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_YUV420P;
import static org.bytedeco.ffmpeg.global.avutil.av_d2q;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_free;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_make_writable;
import static org.bytedeco.ffmpeg.global.avutil.av_make_q;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BICUBIC;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale;

import hushrise.core.time.FrameRate;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVCodec;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.avutil.AVRational;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerPointer;

/** Encodes pictures into a stream of an output file: VP9 for WebM, H.264 for everything else. */
final class VideoEncoder implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  /** What a drawn or filmed picture needs to look untouched, roughly. */
  static final double BITS_PER_PIXEL = 0.12;

  /** The clock of pictures that each have a time of their own. */
  static final int TICKS_PER_SECOND = 90_000;

  /**
   * What pictures are encoded for.
   *
   * @param headApart whether the container has a place of its own for what decoders need first
   */
  record Target(OutputFormat format, boolean headApart) {

    static Target of(AVFormatContext output, OutputFormat format) {
      return new Target(format, (output.oformat().flags() & AVFMT_GLOBALHEADER) != 0);
    }
  }

  private final AVCodecContext codec;
  private final AVCodec encoder;
  private Optional<AVStream> stream = Optional.empty();
  private final boolean vp9;
  private final boolean steady;
  private final AVFrame frame = allocated(av_frame_alloc());
  private final AVPacket packet = allocated(av_packet_alloc());
  private final Scaling scaling = new Scaling();

  /**
   * An encoder that is opened once everything has been set. Its packets are stamped in its own
   * {@link #clock} and in no stream, unless it is let into a file.
   *
   * @param ticksPerSecond the clock of its pictures' times; 0: they are numbered at the rate
   */
  VideoEncoder(
      Target target,
      int width,
      int height,
      FrameRate rate,
      double bitsPerPixel,
      int ticksPerSecond) {
    vp9 = target.format() == OutputFormat.WEBM;
    steady = ticksPerSecond == 0;
    encoder = avcodec_find_encoder_by_name(vp9 ? "libvpx-vp9" : "libopenh264");
    codec = allocated(avcodec_alloc_context3(encoder));
    codec.width(width / 2 * 2);
    codec.height(height / 2 * 2);
    codec.pix_fmt(AV_PIX_FMT_YUV420P);
    codec.time_base(
        steady ? av_make_q(rate.denominator(), rate.numerator()) : av_make_q(1, ticksPerSecond));
    codec.framerate(av_make_q(rate.numerator(), rate.denominator()));
    codec.bit_rate(Math.max(100_000, Math.round(width * height * rate.perSecond() * bitsPerPixel)));
    codec.gop_size((int) Math.round(rate.perSecond() * 2));
    if (target.headApart()) {
      codec.flags(codec.flags() | AV_CODEC_FLAG_GLOBAL_HEADER);
    }
  }

  int width() {
    return codec.width();
  }

  int height() {
    return codec.height();
  }

  /** The unit of its packets' times, in seconds; it outlives this. */
  AVRational clock() {
    return av_make_q(codec.time_base().num(), codec.time_base().den());
  }

  /** Adds a stream for packets as this one makes them, once it is open. */
  AVStream addStreamTo(AVFormatContext target) {
    AVStream added = allocated(avformat_new_stream(target, null));
    added.time_base(codec.time_base());
    added.avg_frame_rate(codec.framerate());
    added.sample_aspect_ratio(codec.sample_aspect_ratio());
    avcodec_parameters_from_context(added.codecpar(), codec);
    return added;
  }

  /** Lets its packets into a stream of a file, once it is open. */
  void letInto(AVFormatContext output) {
    stream = Optional.of(addStreamTo(output));
  }

  /** Says how much wider than high its pixels are shown. */
  void setAspect(double aspect) {
    codec.sample_aspect_ratio(av_d2q(aspect, 10_000));
  }

  /** Opens it; before anything is encoded. */
  void open() {
    AVDictionary options = new AVDictionary();
    if (vp9) {
      av_dict_set(options, "deadline", "realtime", 0);
      av_dict_set(options, "cpu-used", "7", 0);
      av_dict_set(options, "row-mt", "1", 0);
    }
    int result = avcodec_open2(codec, encoder, options);
    av_dict_free(options);
    if (result < 0) {
      throw new IllegalStateException(
          "The picture encoder could not be set up: " + Ffmpeg.textOf(result));
    }
    frame.format(AV_PIX_FMT_YUV420P);
    frame.width(codec.width());
    frame.height(codec.height());
    av_frame_get_buffer(frame, 0);
  }

  /** Encodes a decoded picture at a place: its number, or its time in ticks. */
  void add(AVFrame picture, long number, PacketSink sink) {
    scaleFrom(
        picture.width(), picture.height(), picture.format(), picture.data(), picture.linesize());
    send(number, sink);
  }

  /** Encodes rows of {@code 0xFFRRGGBB} pixels at a place: their number, or their time in ticks. */
  void add(int[] argb, int width, int height, long number, PacketSink sink) {
    try (IntPointer pixels = new IntPointer(argb);
        PointerPointer<BytePointer> planes = new PointerPointer<>(4);
        IntPointer strides = new IntPointer(width * 4, 0, 0, 0)) {
      planes.put(0, pixels);
      scaleFrom(width, height, AV_PIX_FMT_BGRA, planes, strides);
    }
    send(number, sink);
  }

  /** Encodes the last picture once more. */
  void addAgain(long number, PacketSink sink) {
    send(number, sink);
  }

  private void scaleFrom(
      int width, int height, int format, PointerPointer<?> planes, IntPointer strides) {
    av_frame_make_writable(frame);
    SwsContext scaler =
        scaling.from(
            width, height, format, codec.width(), codec.height(), AV_PIX_FMT_YUV420P, SWS_BICUBIC);
    sws_scale(
        scaler, new PointerPointer<>(planes), strides, 0, height, frame.data(), frame.linesize());
  }

  private void send(long number, PacketSink sink) {
    frame.pts(number);
    avcodec_send_frame(codec, frame);
    receive(sink);
  }

  void finish(PacketSink sink) {
    avcodec_send_frame(codec, null);
    receive(sink);
  }

  private void receive(PacketSink sink) {
    while (avcodec_receive_packet(codec, packet) >= 0) {
      packet.duration(steady ? 1 : 0);
      stream.ifPresent(this::stamp);
      sink.write(packet);
    }
  }

  private void stamp(AVStream in) {
    packet.stream_index(in.index());
    av_packet_rescale_ts(packet, codec.time_base(), in.time_base());
  }

  @Override
  public void close() {
    scaling.close();
    av_frame_free(frame);
    av_packet_free(packet);
    avcodec_free_context(codec);
  }
}

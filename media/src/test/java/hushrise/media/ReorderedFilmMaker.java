package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.bytedeco.ffmpeg.global.avcodec.av_new_packet;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_encoder_by_name;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_from_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_packet;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_frame;
import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;
import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_YUV420P;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_make_writable;
import static org.bytedeco.ffmpeg.global.avutil.av_make_q;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.bytedeco.ffmpeg.avcodec.AVCodec;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;

/**
 * Makes silent films, each of whose pictures is a little lighter than the one before, coded in
 * another order than that in which they are shown.
 *
 * @param muxer FFmpeg's name of the container
 * @param encoder FFmpeg's name of the coding
 * @param between how many pictures at most are coded after the one that follows them
 * @param packed whether the two pictures of which the second is shown first share a packet, after
 *     which an empty one comes
 */
record ReorderedFilmMaker(String muxer, String encoder, int between, boolean packed) {

  static final int PICTURES = 100;
  static final int RATE = 25;
  private static final int WIDTH = 96;
  private static final int HEIGHT = 64;
  private static final int START_CODE = 4;

  /** Says of MPEG-4 that it is packed. */
  private static final String PACKED_BY = "DivX503b1393p";

  /** A picture that is not coded: the last one stays. */
  private static final byte[] EMPTY = {0, 0, 1, (byte) 0xB6, 0x50, 0x4F};

  private static final byte[] USER_DATA = {0, 0, 1, (byte) 0xB2};
  private static final byte[] PICTURE = {0, 0, 1, (byte) 0xB6};

  /** How light a picture is, 0 to 255. */
  static int grey(int picture) {
    return 20 + 2 * picture;
  }

  Path write(Path file) {
    AVFormatContext output = new AVFormatContext(null);
    check(avformat_alloc_output_context2(output, null, muxer, "file:" + file));
    AVCodec codec = avcodec_find_encoder_by_name(encoder);
    AVCodecContext context = avcodec_alloc_context3(codec);
    context.width(WIDTH).height(HEIGHT).pix_fmt(AV_PIX_FMT_YUV420P);
    context.time_base(av_make_q(1, RATE)).framerate(av_make_q(RATE, 1));
    context.bit_rate(1_000_000).gop_size(12).max_b_frames(between);
    check(avcodec_open2(context, codec, (AVDictionary) null));
    AVStream stream = avformat_new_stream(output, null);
    stream.time_base(context.time_base()).avg_frame_rate(context.framerate());
    avcodec_parameters_from_context(stream.codecpar(), context);
    AVIOContext io = new AVIOContext(null);
    check(avio_open(io, "file:" + file, AVIO_FLAG_WRITE));
    output.pb(io);
    check(avformat_write_header(output, (AVDictionary) null));
    for (Coded coded : packed ? packed(encoded(context)) : encoded(context)) {
      write(coded, context, output);
    }
    check(av_write_trailer(output));
    avio_closep(output.pb());
    avcodec_free_context(context);
    avformat_free_context(output);
    return file;
  }

  /** A packet's bytes and times. */
  @SuppressWarnings("ArrayRecordComponent") // never compared
  private record Coded(byte[] bytes, long pts, long dts, int flags) {}

  private static List<Coded> encoded(AVCodecContext context) {
    List<Coded> all = new ArrayList<>();
    AVFrame frame = av_frame_alloc();
    frame.width(WIDTH).height(HEIGHT).format(AV_PIX_FMT_YUV420P);
    check(av_frame_get_buffer(frame, 0));
    AVPacket packet = av_packet_alloc();
    for (int i = 0; i <= PICTURES; i++) {
      if (i < PICTURES) {
        check(av_frame_make_writable(frame));
        for (int plane = 0; plane < 3; plane++) {
          int rows = plane == 0 ? HEIGHT : HEIGHT / 2;
          for (int at = 0; at < rows * frame.linesize(plane); at++) {
            frame.data(plane).put(at, (byte) (plane == 0 ? grey(i) : 128));
          }
        }
        frame.pts(i);
      }
      check(avcodec_send_frame(context, i < PICTURES ? frame : null));
      while (avcodec_receive_packet(context, packet) >= 0) {
        byte[] bytes = new byte[packet.size()];
        packet.data().get(bytes);
        all.add(new Coded(bytes, packet.pts(), packet.dts(), packet.flags()));
        av_packet_unref(packet);
      }
    }
    av_packet_free(packet);
    av_frame_free(frame);
    return all;
  }

  /** Each picture that is shown before the one coded ahead of it goes into that one's packet. */
  private static List<Coded> packed(List<Coded> plain) {
    List<Coded> all = new ArrayList<>();
    for (int i = 0; i < plain.size(); i++) {
      Coded coded = plain.get(i);
      byte[] bytes = i == 0 ? marked(coded.bytes) : coded.bytes;
      boolean two = i + 1 < plain.size() && plain.get(i + 1).pts < coded.pts;
      ByteArrayOutputStream joined = new ByteArrayOutputStream();
      joined.writeBytes(bytes);
      if (two) {
        joined.writeBytes(plain.get(i + 1).bytes);
      }
      all.add(new Coded(joined.toByteArray(), all.size(), all.size(), coded.flags));
      if (two) {
        all.add(new Coded(EMPTY, all.size(), all.size(), 0));
        i++;
      }
    }
    return all;
  }

  /** The first packet with the name of what packs so before its picture. */
  private static byte[] marked(byte[] bytes) {
    int at = 0;
    while (!startsWith(bytes, at, PICTURE)) {
      at++;
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.write(bytes, 0, at);
    out.writeBytes(USER_DATA);
    out.writeBytes(PACKED_BY.getBytes(StandardCharsets.US_ASCII));
    out.write(bytes, at, bytes.length - at);
    return out.toByteArray();
  }

  private static boolean startsWith(byte[] bytes, int at, byte[] code) {
    for (int i = 0; i < START_CODE; i++) {
      if (bytes[at + i] != code[i]) {
        return false;
      }
    }
    return true;
  }

  private static void write(Coded coded, AVCodecContext context, AVFormatContext output) {
    AVPacket packet = av_packet_alloc();
    check(av_new_packet(packet, coded.bytes.length));
    packet.data().put(coded.bytes);
    packet.pts(coded.pts).dts(coded.dts).flags(coded.flags).duration(1);
    av_packet_rescale_ts(packet, context.time_base(), output.streams(0).time_base());
    check(av_interleaved_write_frame(output, packet));
    av_packet_free(packet);
  }

  private static void check(int result) {
    assertThat(result).as(Ffmpeg.textOf(result)).isNotNegative();
  }
}

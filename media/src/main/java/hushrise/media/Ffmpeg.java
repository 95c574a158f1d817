package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EAGAIN;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EOF;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_AUDIO;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_VIDEO;
import static org.bytedeco.ffmpeg.global.avutil.AV_LOG_QUIET;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_free;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;
import static org.bytedeco.ffmpeg.global.avutil.av_log_set_level;
import static org.bytedeco.ffmpeg.global.avutil.av_strerror;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.bytedeco.ffmpeg.avcodec.AVCodecParameters;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.global.avcodec;
import org.bytedeco.ffmpeg.global.avformat;
import org.bytedeco.ffmpeg.global.avutil;
import org.bytedeco.ffmpeg.global.swresample;
import org.bytedeco.ffmpeg.global.swscale;
import org.bytedeco.javacpp.Loader;
import org.bytedeco.javacpp.Pointer;

/** What every use of FFmpeg's libraries shares: opening local files only, and errors in words. */
final class Ffmpeg {

  /** Where JavaCPP puts the libraries; a hidden folder in the person's home if nobody says. */
  private static final String LIBRARIES_FOLDER = "org.bytedeco.javacpp.cachedir";

  static {
    if (System.getProperty(LIBRARIES_FOLDER) == null) {
      System.setProperty(LIBRARIES_FOLDER, UserFolders.libraries().toString());
    }
    for (Class<?> library :
        List.of(avutil.class, swresample.class, swscale.class, avcodec.class, avformat.class)) {
      Loader.load(library);
    }
    av_log_set_level(AV_LOG_QUIET);
  }

  /** How far to look for a stream that begins late: ten minutes, or so many bytes. */
  private static final Map<String, String> FURTHER =
      Map.of("analyzeduration", "600000000", "probesize", "200000000");

  private Ffmpeg() {}

  /**
   * Sees to it that the libraries are there. What makes their objects calls this first, in a static
   * block: their classes need one another, and threads that begin with different ones of them would
   * wait for each other for ever.
   */
  static void load() {
    // done above, once, by whichever thread comes first
  }

  /**
   * Opens a media file for reading. Only the {@code file} protocol is allowed, for the file itself
   * and for anything it refers to, and formats that consist of references are refused.
   *
   * @throws Problem when the file is missing, unreadable, empty, or no media
   */
  static AVFormatContext openInput(Path file) {
    ReadableFile.require(file);
    FirstLook.pass(file, Progress.NONE);
    AVFormatContext context = opened(file, Map.of());
    if (isUnknown(context)) {
      avformat.avformat_close_input(context);
      context = opened(file, FURTHER);
    }
    return context;
  }

  private static AVFormatContext opened(Path file, Map<String, String> further) {
    AVFormatContext context = new AVFormatContext(null);
    AVDictionary options = new AVDictionary();
    av_dict_set(options, "protocol_whitelist", "file", 0);
    av_dict_set(options, "format_whitelist", FORMATS, 0);
    av_dict_set(options, "scan_all_pmts", "1", 0);
    further.forEach((option, value) -> av_dict_set(options, option, value, 0));
    int result =
        avformat.avformat_open_input(context, "file:" + file.toAbsolutePath(), null, options);
    av_dict_free(options);
    if (result < 0) {
      throw new Problem(
          "%s is no sound or film that can be read (%s): choose another file, or convert it first."
              .formatted(file, textOf(result)));
    }
    if (avformat.avformat_find_stream_info(context, (AVDictionary) null) < 0) {
      avformat.avformat_close_input(context);
      throw new Problem(
          "%s cannot be decoded: it may be damaged; copy it again from its source."
              .formatted(file));
    }
    return context;
  }

  /**
   * Whether a stream that begins late has not been met yet: in an MPEG transport stream it then has
   * no rate or size, and an MPEG program stream seems to have no sound.
   */
  private static boolean isUnknown(AVFormatContext context) {
    boolean sound = false;
    for (int i = 0; i < context.nb_streams(); i++) {
      AVCodecParameters of = context.streams(i).codecpar();
      sound |= of.codec_type() == AVMEDIA_TYPE_AUDIO;
      if (of.codec_type() == AVMEDIA_TYPE_AUDIO && of.sample_rate() == 0
          || of.codec_type() == AVMEDIA_TYPE_VIDEO && of.width() == 0) {
        return true;
      }
    }
    return !sound && "mpeg".equals(context.iformat().name().getString());
  }

  /**
   * Reads the next packet; false at the end of the file. The packet is the caller's to let go.
   *
   * @throws Problem when the file cannot be read any further, which is not its end
   */
  static boolean read(AVFormatContext format, AVPacket packet, Path file) {
    int result = av_read_frame(format, packet);
    while (result == AVERROR_EAGAIN()) {
      result = av_read_frame(format, packet);
    }
    if (result < 0 && result != AVERROR_EOF()) {
      throw new Problem(
          "%s cannot be read to its end (%s): it may be cut short, or its disk is gone; copy it again from its source."
              .formatted(file, textOf(result)));
    }
    return result >= 0;
  }

  /**
   * Makes a packet that was read one of another file's, where times count from another zero.
   *
   * @param zero the time that becomes 0, in ticks of the stream it was read from
   */
  static void moveTo(AVStream to, AVPacket packet, AVStream from, long zero) {
    if (packet.pts() != AV_NOPTS_VALUE) {
      packet.pts(packet.pts() - zero);
    }
    if (packet.dts() != AV_NOPTS_VALUE) {
      packet.dts(packet.dts() - zero);
    }
    av_packet_rescale_ts(packet, from.time_base(), to.time_base());
    packet.stream_index(to.index());
    packet.pos(-1);
  }

  /** Where a packet ends, in seconds of its stream's own time; 0 where it has no time. */
  static double endOf(AVFormatContext format, AVPacket packet) {
    long start = packet.pts() == AV_NOPTS_VALUE ? packet.dts() : packet.pts();
    return start == AV_NOPTS_VALUE
        ? 0
        : (start + packet.duration())
            * TimeZero.seconds(format.streams(packet.stream_index()).time_base());
  }

  /** The demuxers of the formats that are read. None of them follows references to other files. */
  private static final String FORMATS =
      "wav,w64,aiff,flac,mp3,ogg,aac,mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,avi,asf,flv,mxf,mpegts,mpeg,caf,au,"
          + "wv,ac3,eac3,amr,tta,ape,dsf,dv,image2,png_pipe,jpeg_pipe,webp_pipe,bmp_pipe,tiff_pipe";

  /** FFmpeg's own words for an error code. */
  static String textOf(int error) {
    byte[] text = new byte[256];
    av_strerror(error, text, text.length);
    int end = 0;
    while (end < text.length && text[end] != 0) {
      end++;
    }
    return new String(text, 0, end, StandardCharsets.UTF_8);
  }

  /** Passes a pointer on; a null one means that memory ran out. */
  static <P extends Pointer> P allocated(P pointer) {
    if (pointer == null || pointer.isNull()) {
      throw new OutOfMemoryError("FFmpeg could not allocate");
    }
    return pointer;
  }
}

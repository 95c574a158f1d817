package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_to_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLT;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLTP;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_S16;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;

import java.nio.file.Path;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.ShortPointer;

/**
 * Tells when a film flashes and when it clicks, by its packets' own times as any other player reads
 * them: nothing of ours that counts time is used here.
 *
 * @param flashSeconds when the first bright picture is shown
 * @param clickSeconds when the first loud sample sounds
 */
record SyncMeter(double flashSeconds, double clickSeconds) {

  static SyncMeter of(Path file) {
    return new SyncMeter(first(file, true), first(file, false));
  }

  /** How much later the click comes than the flash, in milliseconds. */
  double apartMillis() {
    return (clickSeconds - flashSeconds) * 1000;
  }

  private static double first(Path file, boolean picture) {
    AVFormatContext format = Ffmpeg.openInput(file);
    int index = picture ? Probe.pictureStream(format) : Probe.soundStream(format);
    AVStream stream = format.streams(index);
    AVCodecContext codec =
        avcodec_alloc_context3(avcodec_find_decoder(stream.codecpar().codec_id()));
    avcodec_parameters_to_context(codec, stream.codecpar());
    codec.pkt_timebase(stream.time_base());
    avcodec_open2(codec, avcodec_find_decoder(stream.codecpar().codec_id()), (AVDictionary) null);
    AVPacket packet = av_packet_alloc();
    AVFrame frame = av_frame_alloc();
    double found = Double.NaN;
    boolean reading = true;
    while (reading && Double.isNaN(found)) {
      reading = av_read_frame(format, packet) >= 0;
      if (!reading || packet.stream_index() == index) {
        avcodec_send_packet(codec, reading ? packet : null);
        while (Double.isNaN(found) && avcodec_receive_frame(codec, frame) >= 0) {
          double at =
              frame.best_effort_timestamp()
                  * (double) stream.time_base().num()
                  / stream.time_base().den();
          found = picture ? bright(frame, at) : loud(frame, at);
        }
      }
      av_packet_unref(packet);
    }
    av_frame_free(frame);
    avcodec_free_context(codec);
    avformat_close_input(format);
    return found;
  }

  private static double bright(AVFrame frame, double at) {
    int middle = frame.linesize(0) * (frame.height() / 2) + frame.width() / 2;
    return (frame.data(0).get(middle) & 0xFF) > 150 ? at : Double.NaN;
  }

  private static double loud(AVFrame frame, double at) {
    for (int i = 0; i < frame.nb_samples(); i++) {
      if (Math.abs(sample(frame, i)) > 0.25) {
        return at + i / (double) frame.sample_rate();
      }
    }
    return Double.NaN;
  }

  private static double sample(AVFrame frame, int i) {
    int channels = frame.ch_layout().nb_channels();
    return switch (frame.format()) {
      case AV_SAMPLE_FMT_FLTP -> new FloatPointer(frame.data(0)).get(i);
      case AV_SAMPLE_FMT_FLT -> new FloatPointer(frame.data(0)).get((long) i * channels);
      case AV_SAMPLE_FMT_S16 -> new ShortPointer(frame.data(0)).get((long) i * channels) / 32768.0;
      default -> throw new AssertionError("sample format " + frame.format());
    };
  }
}

package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.bytedeco.ffmpeg.global.avcodec.AV_PKT_DATA_DISPLAYMATRIX;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_side_data_new;
import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;

import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avcodec.AVPacketSideData;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.javacpp.IntPointer;

/**
 * Makes the films of strangers: pictures at any times, sound that starts when it likes, a display
 * matrix. Both are dark and silent but for a flash and a click at one and the same moment.
 *
 * @param format the container
 * @param pictureTimes when each picture is shown, in seconds of the file's own time
 * @param soundStart when the sound starts, likewise
 * @param soundSeconds how long the sound is; 0 for none
 * @param flashAt when the flash is shown and the click sounds
 * @param matrix a display matrix's a, b, c, d in whole numbers; empty for none
 */
@SuppressWarnings("ArrayRecordComponent") // never compared
record FilmFileMaker(
    OutputFormat format,
    List<Double> pictureTimes,
    double soundStart,
    double soundSeconds,
    double flashAt,
    int[] matrix) {

  static final int WIDTH = 96;
  static final int HEIGHT = 64;
  private static final int RATE = 48_000;

  /** Times at a steady rate. */
  static List<Double> steady(double start, double rate, double seconds) {
    List<Double> times = new ArrayList<>();
    for (int i = 0; i < Math.round(seconds * rate); i++) {
      times.add(start + i / rate);
    }
    return times;
  }

  Path write(Path file) {
    AVFormatContext output = new AVFormatContext(null);
    check(avformat_alloc_output_context2(output, null, format.muxer(), "file:" + file));
    VideoEncoder video =
        new VideoEncoder(
            VideoEncoder.Target.of(output, format),
            WIDTH,
            HEIGHT,
            new FrameRate(25, 1),
            0.5,
            VideoEncoder.TICKS_PER_SECOND);
    video.open();
    video.letInto(output);
    turn(output.streams(0));
    SoundEncoder sound = soundSeconds == 0 ? null : SoundEncoder.of(output, format, RATE, 128_000);
    AVIOContext io = new AVIOContext(null);
    check(avio_open(io, "file:" + file, AVIO_FLAG_WRITE));
    output.pb(io);
    AVDictionary options = new AVDictionary();
    av_dict_set(options, "movflags", "faststart", 0);
    check(avformat_write_header(output, options));
    pictures(video, output);
    if (sound != null) {
      clicks(sound, output);
      sound.close();
    }
    check(av_write_trailer(output));
    avio_closep(output.pb());
    video.close();
    avformat_free_context(output);
    return file;
  }

  private void turn(AVStream stream) {
    if (matrix.length == 0) {
      return;
    }
    AVPacketSideData data = new AVPacketSideData(null);
    IntPointer count = new IntPointer(1).put(0);
    av_packet_side_data_new(data, count, AV_PKT_DATA_DISPLAYMATRIX, 36, 0);
    new IntPointer(data.data())
        .put(
            matrix[0] << 16,
            matrix[1] << 16,
            0,
            matrix[2] << 16,
            matrix[3] << 16,
            0,
            0,
            0,
            1 << 30);
    stream.codecpar().coded_side_data(data);
    stream.codecpar().nb_coded_side_data(1);
  }

  /** A dark picture whose upper left corner is a little lighter; white while the flash lasts. */
  private void pictures(VideoEncoder video, AVFormatContext output) {
    for (double time : pictureTimes) {
      int[] argb = new int[WIDTH * HEIGHT];
      boolean flash = time > flashAt - 1e-6 && time < flashAt + 0.25;
      for (int i = 0; i < argb.length; i++) {
        boolean corner = i % WIDTH < WIDTH / 3 && i / WIDTH < HEIGHT / 3;
        int grey = flash ? 250 : corner ? 110 : 16;
        argb[i] = 0xFF000000 | grey << 16 | grey << 8 | grey;
      }
      long tick = Math.round(time * VideoEncoder.TICKS_PER_SECOND);
      video.add(argb, WIDTH, HEIGHT, tick, p -> write(output, p, 0));
    }
    video.finish(p -> write(output, p, 0));
  }

  private void clicks(SoundEncoder sound, AVFormatContext output) {
    long length = Math.round(soundSeconds * RATE);
    long at = Math.round((flashAt - soundStart) * RATE);
    for (long from = 0; from < length; from += RATE) {
      int n = (int) Math.min(RATE, length - from);
      float[] samples = new float[n];
      for (int i = 0; i < n; i++) {
        long into = from + i - at;
        boolean clicks = at >= 0 && into >= 0 && into < RATE / 5;
        samples[i] = clicks ? (float) (0.8 * Math.sin(2 * Math.PI * 1_000 * into / RATE)) : 0;
      }
      sound.add(samples, samples, n, p -> write(output, p, soundStart));
    }
    sound.finish(p -> write(output, p, soundStart));
  }

  private static void write(AVFormatContext output, AVPacket packet, double later) {
    AVStream stream = output.streams(packet.stream_index());
    long by = Math.round(later / TimeZero.seconds(stream.time_base()));
    packet.pts(packet.pts() + by);
    packet.dts(packet.dts() + by);
    check(av_interleaved_write_frame(output, packet));
  }

  private static void check(int result) {
    assertThat(result).as(Ffmpeg.textOf(result)).isNotNegative();
  }
}

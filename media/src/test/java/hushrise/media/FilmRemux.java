package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_copy;
import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;

import java.nio.file.Path;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;

/**
 * Puts a film into another container, with a pause in its sound, as a recorder makes it that writes
 * none while it hears none.
 *
 * @param muxer FFmpeg's name of the container
 * @param pauseFrom where the pause begins, in seconds of the film's own time
 * @param pauseUntil where it ends; the same for none
 */
record FilmRemux(String muxer, double pauseFrom, double pauseUntil) {

  /** The same film in another container. */
  static FilmRemux into(String muxer) {
    return new FilmRemux(muxer, 0, 0);
  }

  Path write(Path film, Path file) {
    AVFormatContext input = Ffmpeg.openInput(film);
    int sound = Probe.soundStream(input);
    AVFormatContext output = new AVFormatContext(null);
    check(avformat_alloc_output_context2(output, null, muxer, "file:" + file));
    for (int i = 0; i < input.nb_streams(); i++) {
      AVStream stream = avformat_new_stream(output, null);
      check(avcodec_parameters_copy(stream.codecpar(), input.streams(i).codecpar()));
      stream.codecpar().codec_tag(0);
      stream.time_base(input.streams(i).time_base());
    }
    AVIOContext io = new AVIOContext(null);
    check(avio_open(io, "file:" + file, AVIO_FLAG_WRITE));
    output.pb(io);
    check(avformat_write_header(output, (AVDictionary) null));
    AVPacket packet = av_packet_alloc();
    while (Ffmpeg.read(input, packet, film)) {
      int index = packet.stream_index();
      double at = packet.pts() * TimeZero.seconds(input.streams(index).time_base());
      if (index == sound && at >= pauseFrom && at < pauseUntil) {
        av_packet_unref(packet);
      } else {
        Ffmpeg.moveTo(output.streams(index), packet, input.streams(index), 0);
        check(av_interleaved_write_frame(output, packet));
      }
    }
    av_packet_free(packet);
    check(av_write_trailer(output));
    avio_closep(output.pb());
    avformat_free_context(output);
    avformat_close_input(input);
    return file;
  }

  private static void check(int result) {
    assertThat(result).as(Ffmpeg.textOf(result)).isNotNegative();
  }
}

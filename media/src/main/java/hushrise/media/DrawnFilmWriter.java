package hushrise.media;

import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;

import hushrise.core.Problem;
import hushrise.core.store.AtomicFile;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avutil.AVDictionary;

/**
 * Writes a film from drawn pictures and, if wanted, sound: how the demo and the tests make theirs.
 */
public final class DrawnFilmWriter implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  /** Flat drawings need few bits. */
  private static final double BITS_PER_PIXEL = 0.034;

  private static final int SOUND_BIT_RATE = 80_000;

  private final Path target;
  private final Path part;
  private final AVFormatContext output = new AVFormatContext(null);
  private final VideoEncoder video;
  private final SoundEncoder sound;
  private final int width;
  private final int height;
  private long pictures;
  private boolean finished;

  /**
   * @param sampleRate of the sound in Hz; 0 for a film without sound
   */
  public DrawnFilmWriter(
      Path target, OutputFormat format, int width, int height, FrameRate rate, int sampleRate) {
    this.target = target;
    this.width = width;
    this.height = height;
    part = AtomicFile.beside(target);
    avformat_alloc_output_context2(output, null, format.muxer(), null);
    video =
        new VideoEncoder(
            VideoEncoder.Target.of(output, format), width, height, rate, BITS_PER_PIXEL, 0);
    video.open();
    video.letInto(output);
    sound = sampleRate == 0 ? null : SoundEncoder.of(output, format, sampleRate, SOUND_BIT_RATE);
    AVIOContext file = new AVIOContext(null);
    check(avio_open(file, "file:" + part, AVIO_FLAG_WRITE));
    output.pb(file);
    check(avformat_write_header(output, (AVDictionary) null));
  }

  /** Appends a picture of rows of {@code 0xFFRRGGBB} pixels. */
  public void addPicture(int[] argb) {
    video.add(argb, width, height, pictures++, this::write);
  }

  /** Appends stereo sound. */
  public void addSound(float[] left, float[] right, int frames) {
    sound.add(left, right, frames, this::write);
  }

  private void write(AVPacket packet) {
    check(av_interleaved_write_frame(output, packet));
  }

  private void check(int result) {
    if (result < 0) {
      throw new Problem(
          "%s cannot be written (%s): check that the disk has room."
              .formatted(target, Ffmpeg.textOf(result)));
    }
  }

  /** Completes the film and puts it in its place. */
  public void finish() {
    video.finish(this::write);
    if (sound != null) {
      sound.finish(this::write);
    }
    check(av_write_trailer(output));
    finished = true;
  }

  @Override
  public void close() {
    avio_closep(output.pb());
    video.close();
    if (sound != null) {
      sound.close();
    }
    avformat_free_context(output);
    if (finished) {
      AtomicFile.moveInto(part, target);
    } else {
      AtomicFile.discard(part);
    }
  }
}

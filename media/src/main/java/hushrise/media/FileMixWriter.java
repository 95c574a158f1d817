package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_NONE;
import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_query_codec;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.sound.MixWriter;
import hushrise.core.store.AtomicFile;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Supplier;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.global.avformat;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Writes a mix into a file, for a film together with its picture, whose packets are copied where
 * the container takes their coding. The file grows beside its final place and is renamed when
 * complete.
 */
public final class FileMixWriter implements MixWriter {

  private static final Logger LOG = LoggerFactory.getLogger(FileMixWriter.class);

  private static final int STANDARD_COMPLIANCE = 0;

  private final Path target;
  private final Path part;
  private final int sampleRate;
  private final AVFormatContext output = new AVFormatContext(null);
  private SoundEncoder sound;
  private Optional<PictureFeed> picture = Optional.empty();
  private long frames;
  private boolean finished;
  private boolean open;

  private FileMixWriter(Path target, int sampleRate) {
    this.target = target;
    this.sampleRate = sampleRate;
    this.part = AtomicFile.beside(target);
  }

  /** A writer of sound alone. */
  public static FileMixWriter ofSound(Path target, OutputFormat format, int sampleRate) {
    return new FileMixWriter(target, sampleRate).begin(format, Optional.empty());
  }

  /**
   * A writer of a film.
   *
   * @param film the file whose picture goes along, whole
   */
  public static FileMixWriter ofFilm(Path target, OutputFormat format, Path film, int sampleRate) {
    FileMixWriter writer = new FileMixWriter(target, sampleRate);
    try {
      return writer.begin(format, Optional.of(() -> writer.feedOf(film, format)));
    } catch (HeadRefused e) {
      LOG.debug("{} does not take the picture of {} as it is", format, film, e);
      FileMixWriter other = new FileMixWriter(target, sampleRate);
      return other.begin(format, Optional.of(() -> other.encodedAnew(film, format)));
    }
  }

  /** A container said that it takes a picture's coding, and then did not. */
  private static final class HeadRefused extends RuntimeException {
    private static final long serialVersionUID = 1;

    HeadRefused(Throwable cause) {
      super(cause);
    }
  }

  /** A writer of a film whose picture is put together from a project's clips and encoded anew. */
  public static FileMixWriter ofSequence(Path target, OutputFormat format, Project project) {
    FileMixWriter writer = new FileMixWriter(target, project.sampleRate());
    return writer.begin(
        format, Optional.of(() -> new PictureSequence(project, writer.output, format)));
  }

  private FileMixWriter begin(OutputFormat format, Optional<Supplier<PictureFeed>> feed) {
    try {
      avformat_alloc_output_context2(output, null, format.muxer(), null);
      picture = feed.map(Supplier::get);
      sound = new SoundEncoder(output, format, sampleRate, format.bitRate());
      AVIOContext file = new AVIOContext(null);
      check(avio_open(file, "file:" + part, AVIO_FLAG_WRITE));
      output.pb(file);
      open = true;
      writeHead();
      return this;
    } catch (RuntimeException e) {
      close();
      throw e;
    }
  }

  private void writeHead() {
    int result = avformat_write_header(output, (AVDictionary) null);
    if (result < 0 && copiesPicture()) {
      throw new HeadRefused(new IllegalStateException(Ffmpeg.textOf(result)));
    }
    check(result);
  }

  private PictureFeed encodedAnew(Path film, OutputFormat format) {
    Probe.Picture found =
        Probe.of(film)
            .picture()
            .orElseThrow(() -> new Problem("%s has no picture: choose a film.".formatted(film)));
    return new PictureRecode(film, found.rate(), output, format);
  }

  private PictureFeed feedOf(Path film, OutputFormat format) {
    AVFormatContext input = Ffmpeg.openInput(film);
    int codec;
    try {
      codec = input.streams(Probe.pictureStream(input)).codecpar().codec_id();
    } finally {
      avformat.avformat_close_input(input);
    }
    boolean taken =
        codec != AV_CODEC_ID_NONE
            && avformat_query_codec(output.oformat(), codec, STANDARD_COMPLIANCE) == 1;
    return taken ? new PictureCopy(film, output) : encodedAnew(film, format);
  }

  /** Whether a picture goes along with its packets untouched. */
  public boolean copiesPicture() {
    return picture.map(PictureFeed::copies).orElse(false);
  }

  @Override
  public void write(float[] left, float[] right, int n) {
    picture.ifPresent(p -> p.writeUntil(frames / (double) sampleRate, this::writePacket));
    sound.add(left, right, n, this::writePacket);
    frames += n;
  }

  private void writePacket(AVPacket packet) {
    check(av_interleaved_write_frame(output, packet));
  }

  private void check(int result) {
    if (result < 0) {
      throw new Problem(
          "%s cannot be written (%s): check that the disk has room and that you may write there."
              .formatted(target, Ffmpeg.textOf(result)));
    }
  }

  @Override
  public void finish() {
    picture.ifPresent(p -> p.writeUntil(Double.MAX_VALUE, this::writePacket));
    sound.finish(this::writePacket);
    check(av_write_trailer(output));
    open = false;
    check(avio_closep(output.pb()));
    AtomicFile.moveInto(part, target);
    finished = true;
  }

  @Override
  public void close() {
    if (open) {
      avio_closep(output.pb());
      open = false;
    }
    picture.ifPresent(PictureFeed::close);
    picture = Optional.empty();
    if (sound != null) {
      sound.close();
      sound = null;
    }
    if (!output.isNull()) {
      avformat_free_context(output);
      output.setNull();
    }
    if (!finished) {
      AtomicFile.discard(part);
    }
  }
}

package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_NONE;
import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.AV_DISPOSITION_DEFAULT;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_query_codec;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EINVAL;
import static org.bytedeco.ffmpeg.global.avutil.AV_DICT_DONT_OVERWRITE;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_free;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.store.AtomicFile;
import java.nio.file.Path;
import java.util.List;
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
 * Writes a mix with FFmpeg's encoders and containers; for a film together with its picture, whose
 * packets are copied where the container takes their coding, and with all else its source carries
 * that can go along.
 */
final class FfmpegWriter implements FileMixWriter {

  static {
    Ffmpeg.load();
  }

  private static final Logger LOG = LoggerFactory.getLogger(FfmpegWriter.class);

  private static final int STANDARD_COMPLIANCE = 0;

  private final FileHead head;
  private final Path part;
  private final AVFormatContext output = new AVFormatContext(null);
  private SoundEncoder sound;
  private Optional<PictureFeed> picture = Optional.empty();
  private Optional<Companions> companions = Optional.empty();
  private List<String> leftOut = List.of();
  private long frames;
  private boolean complete;
  private boolean moved;
  private boolean open;

  private FfmpegWriter(FileHead head) {
    this.head = head;
    this.part = AtomicFile.beside(head.target());
  }

  static FfmpegWriter ofSound(FileHead head, OutputFormat format) {
    return new FfmpegWriter(head).begin(format, Optional.empty(), Optional.empty(), false);
  }

  static FfmpegWriter ofFilm(FileHead head, OutputFormat format, Path film) {
    Optional<Path> source = Optional.of(film);
    for (boolean companions : new boolean[] {true, false}) {
      FfmpegWriter writer = new FfmpegWriter(head);
      try {
        return writer.begin(
            format, Optional.of(() -> writer.feedOf(film, format)), source, companions);
      } catch (HeadRefused e) {
        LOG.debug("{} does not take {} as it is", format, film, e);
      }
    }
    FfmpegWriter writer = new FfmpegWriter(head);
    return writer.begin(format, Optional.of(() -> writer.encodedAnew(film, format)), source, false);
  }

  /** A container said that it takes a picture's coding, and then did not. */
  private static final class HeadRefused extends RuntimeException {
    private static final long serialVersionUID = 1;

    HeadRefused(Throwable cause) {
      super(cause);
    }
  }

  static FfmpegWriter ofSequence(FileHead head, OutputFormat format, Project project) {
    FfmpegWriter writer = new FfmpegWriter(head);
    return writer.begin(
        format,
        Optional.of(() -> SequenceStretch.feed(project, head.seconds(), writer.output, format)),
        Optional.empty(),
        false);
  }

  /**
   * @param film whose tags and chapters go along
   * @param takesStreams whether its subtitles and sound tracks do
   */
  private FfmpegWriter begin(
      OutputFormat format,
      Optional<Supplier<PictureFeed>> feed,
      Optional<Path> film,
      boolean takesStreams) {
    try {
      String url = "file:" + part;
      avformat_alloc_output_context2(output, null, format.muxer(), url);
      picture = feed.map(Supplier::get);
      int kbps = head.kbps() > 0 ? head.kbps() : format.coding().usualKbps();
      sound = SoundEncoder.of(output, format, head.sampleRate(), kbps * 1000);
      sound.stream().disposition(AV_DISPOSITION_DEFAULT);
      companions = film.map(f -> new Companions(f, output, sound.stream(), head, takesStreams));
      leftOut = companions.map(Companions::leftOut).orElseGet(() -> chapters(format));
      AVIOContext file = new AVIOContext(null);
      check(avio_open(file, url, AVIO_FLAG_WRITE));
      output.pb(file);
      open = true;
      writeHead(format);
      return this;
    } catch (RuntimeException e) {
      close();
      throw e;
    }
  }

  /** Gives the file chapters where it has no source with any; what cannot be is said. */
  private List<String> chapters(OutputFormat format) {
    List<Chapters.Chapter> all = Chapters.arranged(List.of(), head);
    if (all.isEmpty() || format.takesChapters()) {
      Chapters.set(output, all);
      return List.of();
    }
    return List.of(
        "Chapters do not go into a .%s file and are left out.".formatted(format.ending()));
  }

  private void writeHead(OutputFormat format) {
    AVDictionary options = new AVDictionary(null);
    head.title().ifPresent(t -> set("title", t, AV_DICT_DONT_OVERWRITE));
    head.comment().ifPresent(c -> set("comment", c, 0));
    // the index in front, so that a film plays before all of it has been loaded
    av_dict_set(options, "movflags", "+faststart", 0);
    int result = avformat_write_header(output, options);
    av_dict_free(options);
    if (result < 0 && copiesPicture()) {
      throw new HeadRefused(new IllegalStateException(Ffmpeg.textOf(result)));
    }
    check(result);
  }

  private void set(String key, String value, int flags) {
    AVDictionary tags = output.metadata();
    tags = tags == null ? new AVDictionary(null) : tags;
    av_dict_set(tags, key, value, flags);
    output.metadata(tags);
  }

  private PictureFeed encodedAnew(Path film, OutputFormat format) {
    Probe.Picture found =
        Probe.of(film)
            .picture()
            .orElseThrow(() -> new Problem("%s has no picture: choose a film.".formatted(film)));
    return RecodedStretch.feed(film, head.seconds(), found.rate(), output, format);
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
    return taken ? new PictureCopy(film, head.seconds(), output) : encodedAnew(film, format);
  }

  @Override
  public boolean copiesPicture() {
    return picture.map(PictureFeed::copies).orElse(false);
  }

  @Override
  public List<String> leftOut() {
    return leftOut;
  }

  @Override
  public Path written() {
    return part;
  }

  @Override
  public Path target() {
    return head.target();
  }

  @Override
  public void write(float[] left, float[] right, int n) {
    sound.add(left, right, n, this::writeSound);
    frames += n;
  }

  /** Sound comes when it is encoded; all else keeps in step with it, so that nothing piles up. */
  private void writeSound(AVPacket packet) {
    double seconds = packet.dts() * TimeZero.seconds(sound.stream().time_base());
    picture.ifPresent(p -> p.writeUntil(seconds, this::writePacket));
    companions.ifPresent(c -> c.writeUntil(seconds, this::writePacket));
    writePacket(packet);
  }

  private void writePacket(AVPacket packet) {
    int result = av_interleaved_write_frame(output, packet);
    if (result == AVERROR_EINVAL()) {
      throw new Problem(
          "%s does not take what the film holds (%s): choose another kind of file, such as .mp4 or .mkv."
              .formatted(head.target(), Ffmpeg.textOf(result)));
    }
    check(result);
  }

  private void check(int result) {
    if (result < 0) {
      throw FileMixWriter.unwritable(head.target(), Ffmpeg.textOf(result));
    }
  }

  @Override
  public void complete() {
    if (complete) {
      return;
    }
    sound.finish(this::writeSound);
    picture.ifPresent(p -> p.writeUntil(Double.MAX_VALUE, this::writePacket));
    companions.ifPresent(c -> c.writeUntil(frames / (double) head.sampleRate(), this::writePacket));
    check(av_write_trailer(output));
    open = false;
    check(avio_closep(output.pb()));
    complete = true;
  }

  @Override
  public void finish() {
    complete();
    AtomicFile.moveInto(part, head.target());
    moved = true;
  }

  @Override
  public void close() {
    if (open) {
      avio_closep(output.pb());
      open = false;
    }
    picture.ifPresent(PictureFeed::close);
    picture = Optional.empty();
    companions.ifPresent(Companions::close);
    companions = Optional.empty();
    if (sound != null) {
      sound.close();
      sound = null;
    }
    if (!output.isNull()) {
      avformat_free_context(output);
      output.setNull();
    }
    if (!moved) {
      AtomicFile.discard(part);
    }
  }
}

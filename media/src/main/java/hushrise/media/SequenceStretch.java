package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;

/**
 * A stretch of the picture of a film that is put together from several clips or stills, or trimmed:
 * each picture is decoded, fitted into the film's size on black, and encoded anew. Later clips lie
 * over earlier ones.
 */
final class SequenceStretch implements ClosedGroups.Stretch {

  static {
    Ffmpeg.load();
  }

  private static final int STILLS_WIDTH = 1920;
  private static final int STILLS_HEIGHT = 1080;

  /**
   * A film, and what becomes of it.
   *
   * @param clips in the order in which they lie over one another
   * @param pictures how many it has
   */
  private record Plan(
      Project project,
      List<Clip> clips,
      int width,
      int height,
      long pictures,
      VideoEncoder.Target target) {

    FrameRate rate() {
      return project.pictureRate();
    }

    VideoEncoder encoder() {
      VideoEncoder encoder =
          new VideoEncoder(target, width, height, rate(), VideoEncoder.BITS_PER_PIXEL, 0);
      encoder.open();
      return encoder;
    }

    Media mediaOf(Clip clip) {
      return project
          .media(clip.mediaId())
          .orElseThrow(() -> new Problem("A picture has left the project: add its file again."));
    }
  }

  private final Plan plan;
  private final long first;
  private final int width;
  private final int height;
  private final int[] canvas;
  private final Map<Path, PictureReader> readers = new HashMap<>();

  /**
   * What is drawn.
   *
   * @param media empty where there is no picture
   */
  private record Drawn(Optional<Media> media) {
    boolean stands() {
      return media.filter(m -> m.kind() != MediaKind.STILL).isEmpty();
    }
  }

  private Optional<Drawn> drawn = Optional.empty();

  private SequenceStretch(Plan plan, long first) {
    this.plan = plan;
    this.first = first;
    width = plan.width();
    height = plan.height();
    canvas = new int[width * height];
  }

  /**
   * A project's picture in closed groups.
   *
   * @param seconds how long the film is to be
   */
  static PictureFeed feed(
      Project project, double seconds, AVFormatContext output, OutputFormat format) {
    List<Clip> clips =
        project.tracksOf(TrackKind.PICTURE).flatMap(t -> t.clipsInTime().stream()).toList();
    Optional<Probe.Picture> film =
        clips.stream()
            .map(c -> project.media(c.mediaId()).orElseThrow())
            .filter(m -> m.kind() == MediaKind.PICTURE)
            .findFirst()
            .map(m -> Probe.of(m.file()).picture().orElseThrow());
    Plan plan =
        new Plan(
            project,
            clips,
            film.map(Probe.Picture::width).orElse(STILLS_WIDTH) / 2 * 2,
            film.map(Probe.Picture::height).orElse(STILLS_HEIGHT) / 2 * 2,
            Math.max(1, Math.round(seconds * project.pictureRate().perSecond())),
            VideoEncoder.Target.of(output, format));
    try (VideoEncoder description = plan.encoder()) {
      return new ClosedGroups(output, description, new SequenceStretch(plan, 0));
    }
  }

  /** Whether a project's picture is one film, whole and from the start: then it can be copied. */
  static boolean isOneWholeFilm(Project project) {
    List<Clip> clips =
        project.tracksOf(TrackKind.PICTURE).flatMap(t -> t.clips().stream()).toList();
    if (clips.size() != 1) {
      return false;
    }
    Clip clip = clips.getFirst();
    Media media = project.media(clip.mediaId()).orElseThrow();
    return media.kind() == MediaKind.PICTURE
        && clip.startFrame() == 0
        && clip.mediaStartFrame() == 0
        && clip.lengthFrames() == media.lengthFrames();
  }

  @Override
  public long startTick() {
    return first;
  }

  @Override
  public Optional<SequenceStretch> following() {
    long next = first + Math.round(ClosedGroups.SECONDS * plan.rate().perSecond());
    return next < plan.pictures() ? Optional.of(new SequenceStretch(plan, next)) : Optional.empty();
  }

  @Override
  public void encode(Optional<Long> endTick, PacketSink sink) {
    try (VideoEncoder encoder = plan.encoder()) {
      for (long i = first; i < endTick.orElse(plan.pictures()); i++) {
        if (Thread.currentThread().isInterrupted()) {
          throw new CancellationException();
        }
        if (compose(plan.rate().sampleFrameOf(i, plan.project().sampleRate()))) {
          encoder.add(canvas, width, height, i, sink);
        } else {
          encoder.addAgain(i, sink);
        }
      }
      encoder.finish(sink);
    }
  }

  /** Draws what is seen at a time; false where that is drawn already. */
  private boolean compose(long frame) {
    Clip shown = null;
    for (Clip clip : plan.clips()) {
      shown = clip.span().contains(frame) ? clip : shown;
    }
    Drawn wanted = new Drawn(Optional.ofNullable(shown).map(plan::mediaOf));
    if (wanted.stands() && drawn.equals(Optional.of(wanted))) {
      return false;
    }
    drawn = Optional.of(wanted);
    Arrays.fill(canvas, 0xFF000000);
    if (shown != null) {
      double at = plan.project().seconds(shown.mediaFrameAt(frame - shown.startFrame()));
      readerOf(wanted.media.get()).at(wanted.stands() ? 0 : at).ifPresent(this::place);
    }
    return true;
  }

  private PictureReader readerOf(Media media) {
    return readers.computeIfAbsent(media.file(), f -> new PictureReader(f, width, height));
  }

  private void place(PictureReader.Picture picture) {
    int left = (width - picture.width()) / 2;
    int top = (height - picture.height()) / 2;
    for (int y = 0; y < picture.height(); y++) {
      System.arraycopy(
          picture.argb(), y * picture.width(), canvas, (top + y) * width + left, picture.width());
    }
  }

  @Override
  public void close() {
    readers.values().forEach(PictureReader::close);
  }
}

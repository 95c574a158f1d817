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
import org.bytedeco.ffmpeg.avformat.AVFormatContext;

/**
 * The picture of a film that is put together from several clips or stills, or trimmed: each picture
 * is decoded, fitted into the film's size on black, and encoded anew. Later clips lie over earlier
 * ones.
 */
final class PictureSequence implements PictureFeed {

  static {
    Ffmpeg.load();
  }

  private static final int STILLS_WIDTH = 1920;
  private static final int STILLS_HEIGHT = 1080;

  private final Project project;
  private final List<Clip> clips;
  private final FrameRate rate;
  private final int width;
  private final int height;
  private final int[] canvas;
  private final VideoEncoder encoder;
  private final Map<Path, PictureReader> readers = new HashMap<>();
  private final long pictures;
  private long next;
  private boolean ended;

  /**
   * @param seconds how long the film is to be
   */
  PictureSequence(Project project, double seconds, AVFormatContext output, OutputFormat format) {
    this.project = project;
    clips = project.tracksOf(TrackKind.PICTURE).flatMap(t -> t.clipsInTime().stream()).toList();
    rate = project.pictureRate();
    Optional<Probe.Picture> first =
        clips.stream()
            .map(this::mediaOf)
            .filter(m -> m.kind() == MediaKind.PICTURE)
            .findFirst()
            .map(m -> Probe.of(m.file()).picture().orElseThrow());
    width = first.map(Probe.Picture::width).orElse(STILLS_WIDTH) / 2 * 2;
    height = first.map(Probe.Picture::height).orElse(STILLS_HEIGHT) / 2 * 2;
    canvas = new int[width * height];
    pictures = Math.max(1, Math.round(seconds * rate.perSecond()));
    encoder = new VideoEncoder(output, format, width, height, rate, VideoEncoder.BITS_PER_PIXEL);
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

  private Media mediaOf(Clip clip) {
    return project
        .media(clip.mediaId())
        .orElseThrow(() -> new Problem("A picture has left the project: add its file again."));
  }

  @Override
  public boolean copies() {
    return false;
  }

  @Override
  public void writeUntil(double seconds, PacketSink sink) {
    while (!ended && next / rate.perSecond() <= seconds) {
      if (next >= pictures) {
        encoder.finish(sink);
        ended = true;
        return;
      }
      compose(rate.sampleFrameOf(next, project.sampleRate()));
      encoder.add(canvas, width, height, next, sink);
      next++;
    }
  }

  private void compose(long frame) {
    Arrays.fill(canvas, 0xFF000000);
    Clip shown = null;
    for (Clip clip : clips) {
      shown = clip.span().contains(frame) ? clip : shown;
    }
    if (shown != null) {
      Media media = mediaOf(shown);
      double at = project.seconds(shown.mediaFrameAt(frame - shown.startFrame()));
      readerOf(media).at(media.kind() == MediaKind.STILL ? 0 : at).ifPresent(this::place);
    }
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
    encoder.close();
  }
}

package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_GRAY8;
import static org.bytedeco.ffmpeg.global.swscale.SWS_FAST_BILINEAR;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale;

import hushrise.core.picture.PictureFacts;
import hushrise.core.picture.PictureWatcher;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * Looks through a film's picture once for its cuts and its fade; what it saw is kept in the cache.
 */
public final class PictureScan {

  private static final int WIDTH = 48;
  private static final int HEIGHT = 27;

  private final MediaStore media;
  private final FoundFile<PictureFacts> found;

  public PictureScan(MediaStore media, CacheFolder cache) {
    this.media = media;
    this.found = new FoundFile<>(cache, PictureFacts.class, "-1.cuts");
  }

  /**
   * What is to be seen in a film.
   *
   * @throws hushrise.core.Problem when it cannot be read
   */
  public PictureFacts facts(Media film, Progress progress) {
    if (film.kind() != MediaKind.PICTURE) {
      return PictureFacts.NONE;
    }
    String key = media.key(film.file());
    return found
        .read(key)
        .orElseGet(
            () -> {
              PictureFacts seen = watch(film, progress);
              found.write(key, seen);
              return seen;
            });
  }

  private static PictureFacts watch(Media film, Progress progress) {
    PictureWatcher watcher = new PictureWatcher(Project.DEFAULT_SAMPLE_RATE);
    byte[] grey = new byte[WIDTH * HEIGHT];
    try (Scaling scaling = new Scaling();
        PictureDecoder decoder = new PictureDecoder(film.file());
        BytePointer pixels = new BytePointer(WIDTH * HEIGHT + 64L);
        PointerPointer<BytePointer> planes = new PointerPointer<>(1);
        IntPointer strides = new IntPointer(1).put(0, WIDTH)) {
      planes.put(0, pixels);
      while (decoder.next()) {
        AVFrame frame = decoder.frame();
        SwsContext scaler =
            scaling.from(
                frame.width(),
                frame.height(),
                frame.format(),
                WIDTH,
                HEIGHT,
                AV_PIX_FMT_GRAY8,
                SWS_FAST_BILINEAR);
        sws_scale(scaler, frame.data(), frame.linesize(), 0, frame.height(), planes, strides);
        pixels.position(0).get(grey);
        long at = Math.round(decoder.frameSeconds() * Project.DEFAULT_SAMPLE_RATE);
        watcher.add(at, grey);
        progress.at(Math.min(1, at / (double) film.lengthFrames()));
      }
    }
    return watcher.facts();
  }
}

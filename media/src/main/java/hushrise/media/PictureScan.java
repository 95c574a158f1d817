package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_GRAY8;
import static org.bytedeco.ffmpeg.global.swscale.SWS_FAST_BILINEAR;
import static org.bytedeco.ffmpeg.global.swscale.sws_freeContext;
import static org.bytedeco.ffmpeg.global.swscale.sws_getCachedContext;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import hushrise.core.picture.PictureFacts;
import hushrise.core.picture.PictureWatcher;
import hushrise.core.project.Media;
import hushrise.core.project.MediaKind;
import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.ffmpeg.swscale.SwsFilter;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.DoublePointer;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerPointer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Looks through a film's picture once for its cuts and its fade; what it saw is kept in the cache.
 */
public final class PictureScan {

  private static final Logger LOG = LoggerFactory.getLogger(PictureScan.class);
  private static final int WIDTH = 48;
  private static final int HEIGHT = 27;

  private final MediaStore media;
  private final CacheFolder cache;
  private final ObjectMapper json = new ObjectMapper().registerModule(new Jdk8Module());

  public PictureScan(MediaStore media, CacheFolder cache) {
    this.media = media;
    this.cache = cache;
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
    Path stored = cache.file(media.key(film.file()), "-1.cuts");
    if (Files.exists(stored)) {
      try {
        PictureFacts found = json.readValue(stored.toFile(), PictureFacts.class);
        cache.touch(stored);
        return found;
      } catch (IOException e) {
        LOG.debug("{} is damaged and made anew", stored, e);
        AtomicFile.discard(stored);
      }
    }
    PictureFacts seen = watch(film, progress);
    Path part = cache.part();
    try {
      json.writeValue(part.toFile(), seen);
      cache.keep(part, stored);
    } catch (IOException e) {
      LOG.warn("The cuts of {} could not be kept", film.file(), e);
      AtomicFile.discard(part);
    }
    return seen;
  }

  private static PictureFacts watch(Media film, Progress progress) {
    PictureWatcher watcher = new PictureWatcher(Project.DEFAULT_SAMPLE_RATE);
    byte[] grey = new byte[WIDTH * HEIGHT];
    SwsContext scaler = null;
    try (PictureDecoder decoder = new PictureDecoder(film.file());
        BytePointer pixels = new BytePointer(WIDTH * HEIGHT + 64L);
        PointerPointer<BytePointer> planes = new PointerPointer<>(1);
        IntPointer strides = new IntPointer(1).put(0, WIDTH)) {
      planes.put(0, pixels);
      while (decoder.next()) {
        AVFrame frame = decoder.frame();
        scaler =
            sws_getCachedContext(
                scaler,
                frame.width(),
                frame.height(),
                frame.format(),
                WIDTH,
                HEIGHT,
                AV_PIX_FMT_GRAY8,
                SWS_FAST_BILINEAR,
                (SwsFilter) null,
                (SwsFilter) null,
                (DoublePointer) null);
        sws_scale(scaler, frame.data(), frame.linesize(), 0, frame.height(), planes, strides);
        pixels.position(0).get(grey);
        long at = Math.round(decoder.frameSeconds() * Project.DEFAULT_SAMPLE_RATE);
        watcher.add(at, grey);
        progress.at(Math.min(1, at / (double) film.lengthFrames()));
      }
    } finally {
      if (scaler != null) {
        sws_freeContext(scaler);
      }
    }
    return watcher.facts();
  }
}

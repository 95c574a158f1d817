package hushrise.app.timeline;

import hushrise.app.Background;
import hushrise.core.project.Media;
import hushrise.core.project.MediaKind;
import hushrise.core.time.FrameRate;
import hushrise.media.PictureReader;
import java.nio.IntBuffer;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.scene.image.Image;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;

/**
 * Small stills of films, made one after another in the background and kept while there is room.
 * Used by the window's thread.
 */
public final class Stills {

  static final int WIDTH = 96;
  static final int HEIGHT = 54;

  private static final int MOST = 600;
  private static final double PER_SECOND = 4;

  private record Key(String mediaId, long quarter) {}

  private final Background background;
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform().daemon().name("hushrise-stills").factory());
  private final Map<Path, PictureReader> readers = new HashMap<>();
  private final Map<Key, Optional<Image>> stills =
      new LinkedHashMap<>(64, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, Optional<Image>> eldest) {
          return size() > MOST;
        }
      };

  Stills(Background background) {
    this.background = background;
  }

  /**
   * The still nearest to a time; empty while it is being made.
   *
   * @param onArrival called when it has come
   */
  Optional<Image> at(Media film, double seconds, Runnable onArrival) {
    boolean moves = film.kind() != MediaKind.STILL;
    Key key = new Key(film.id(), moves ? Math.round(seconds * PER_SECOND) : 0);
    Optional<Image> known = stills.get(key);
    if (known != null) {
      return known;
    }
    stills.put(key, Optional.empty());
    background.run(
        worker,
        () -> reader(film).at(key.quarter() / PER_SECOND),
        picture -> {
          stills.put(key, picture.map(Stills::imageOf));
          onArrival.run();
        },
        () -> {});
    return Optional.empty();
  }

  private PictureReader reader(Media film) {
    return readers.computeIfAbsent(
        film.file(),
        f -> new PictureReader(f, film.pictureRate().orElse(FrameRate.DEFAULT), WIDTH, HEIGHT));
  }

  /** An image over a picture's own pixels. */
  public static Image imageOf(PictureReader.Picture picture) {
    return new WritableImage(
        new PixelBuffer<>(
            picture.width(),
            picture.height(),
            IntBuffer.wrap(picture.argb()),
            PixelFormat.getIntArgbPreInstance()));
  }
}

package hushrise.app.widget;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import hushrise.app.job.Jobs;
import hushrise.app.job.LateAnswers;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.media.PictureReader;
import java.nio.IntBuffer;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.scene.image.Image;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;

/**
 * Small stills of films, made one after another in the background and kept while there is room.
 * Used by the window's thread; the films are read on a thread of its own.
 */
public final class Stills {

  public static final int WIDTH = 96;
  public static final int HEIGHT = 54;

  /** More than are seen at once on the widest of screens: 20 kB each. */
  private static final long MOST = 1_200;

  private static final long MOST_FILMS = 6;
  private static final double PER_SECOND = 4;

  private record Key(Path film, long quarter) {}

  private final Jobs jobs;
  private final LateAnswers late = new LateAnswers();
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform()
              .daemon()
              .name("hushrise-stills")
              .priority(Thread.MIN_PRIORITY)
              .factory());

  /** Open films; only the worker touches them, and it closes those that have to go. */
  private final Cache<Path, PictureReader> films =
      Caffeine.newBuilder()
          .maximumSize(MOST_FILMS)
          .executor(Runnable::run)
          .<Path, PictureReader>removalListener((film, reader, why) -> reader.close())
          .build();

  private final Cache<Key, Image> known = Caffeine.newBuilder().maximumSize(MOST).build();

  /** What is being made, or could not be. */
  private final Set<Key> asked = new HashSet<>();

  /** How wide films are for their height, as far as that is known. */
  private final Map<Path, Double> aspects = new HashMap<>();

  private final ReadOnlyIntegerWrapper arrived = new ReadOnlyIntegerWrapper();

  public Stills(Jobs jobs) {
    this.jobs = jobs;
  }

  /** Changes whenever a still has come that somebody asked for. */
  public ReadOnlyIntegerProperty arrivedProperty() {
    return arrived.getReadOnlyProperty();
  }

  /** The still nearest to a time; empty while it is being made. */
  public Optional<Image> at(Media film, double seconds) {
    boolean moves = film.kind() != MediaKind.STILL;
    Key key = new Key(film.file(), moves ? Math.round(seconds * PER_SECOND) : 0);
    Optional<Image> still = Optional.ofNullable(known.getIfPresent(key));
    if (still.isEmpty() && asked.add(key)) {
      jobs.run(
          worker,
          () -> reader(key.film()).at(key.quarter() / PER_SECOND),
          late.unlessForgotten(
              key.film(),
              picture -> {
                asked.remove(key);
                picture.ifPresent(p -> keep(key, p));
                arrived.set(arrived.get() + 1);
              }),
          () -> {});
    }
    return still;
  }

  private void keep(Key key, PictureReader.Picture picture) {
    known.put(key, imageOf(picture));
    aspects.put(key.film(), picture.width() / (double) picture.height());
  }

  /** How wide a film's picture is for its height; that of most films while it is not known. */
  public double aspect(Media film) {
    return aspects.getOrDefault(film.file(), WIDTH / (double) HEIGHT);
  }

  private PictureReader reader(Path film) {
    return films.get(film, f -> new PictureReader(f, WIDTH, HEIGHT));
  }

  /** Forgets a film, as its file has changed. */
  public void forget(Path film) {
    late.forget(film);
    known.asMap().keySet().removeIf(k -> k.film().equals(film));
    asked.removeIf(k -> k.film().equals(film));
    aspects.remove(film);
    worker.execute(() -> films.invalidate(film));
    arrived.set(arrived.get() + 1);
  }

  /** Keeps nothing of the films so far, as others will be shown from now on. */
  public void letGo() {
    known.invalidateAll();
    asked.clear();
    aspects.clear();
    worker.execute(films::invalidateAll);
  }

  /** Lets go of all films. */
  public void close() {
    worker.execute(films::invalidateAll);
    worker.shutdown();
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

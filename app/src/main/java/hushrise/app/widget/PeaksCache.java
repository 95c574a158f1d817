package hushrise.app.widget;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import hushrise.app.job.Jobs;
import hushrise.app.job.LateAnswers;
import hushrise.core.project.media.Media;
import hushrise.core.sound.Peaks;
import hushrise.core.sound.Progress;
import hushrise.media.MediaStore;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;

/** Fetches peaks once for each file, however many lanes ask. Used by the window's thread. */
public final class PeaksCache {

  /** More than any project has files, which may all be seen at once; they lie in mapped files. */
  private static final long MOST = 10_000;

  private final MediaStore store;
  private final Jobs jobs;
  private final LateAnswers late = new LateAnswers();
  private final Cache<Path, Peaks> known = Caffeine.newBuilder().maximumSize(MOST).build();

  /** What is being fetched, or could not be. */
  private final Set<Path> asked = new HashSet<>();

  private final ReadOnlyIntegerWrapper arrived = new ReadOnlyIntegerWrapper();

  public PeaksCache(MediaStore store, Jobs jobs) {
    this.store = store;
    this.jobs = jobs;
  }

  /** Changes whenever peaks have come that somebody asked for. */
  public ReadOnlyIntegerProperty arrivedProperty() {
    return arrived.getReadOnlyProperty();
  }

  /** The peaks of a media item; empty while they are being made, and without sound. */
  public Optional<Peaks> get(Media media) {
    if (!media.hasSound()) {
      return Optional.empty();
    }
    Path file = media.file();
    Optional<Peaks> peaks = Optional.ofNullable(known.getIfPresent(file));
    if (peaks.isEmpty() && asked.add(file)) {
      jobs.glance(
          file,
          () -> Jobs.ifThere(file, progress -> store.peaks(file)).call(Progress.NONE),
          late.unlessForgotten(
              file,
              made -> {
                known.put(file, made);
                asked.remove(file);
                arrived.set(arrived.get() + 1);
              }));
    }
    return peaks;
  }

  /** The peaks of a media item where they are there already; nobody has to make them. */
  public Optional<Peaks> known(Media media) {
    return Optional.ofNullable(known.getIfPresent(media.file()));
  }

  /** Forgets a file's peaks, as the file has changed or can be read again. */
  public void forget(Path file) {
    late.forget(file);
    known.invalidate(file);
    asked.remove(file);
    arrived.set(arrived.get() + 1);
  }

  /** Keeps no peaks so far, as others will be shown from now on. */
  public void letGo() {
    known.invalidateAll();
    asked.clear();
  }
}

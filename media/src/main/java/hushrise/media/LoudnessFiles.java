package hushrise.media;

import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.nio.file.Path;
import java.util.Optional;

/** The loudness of files in steps of 10 ms, kept in the cache. */
final class LoudnessFiles {

  private static final long KEPT = 1_000;

  private final CacheFolder cache;
  private final Sounds sounds;
  private final Loading<FileIdentity, LoudnessSteps> known = new Loading<>(KEPT);

  LoudnessFiles(CacheFolder cache, Sounds sounds) {
    this.cache = cache;
    this.sounds = sounds;
  }

  /**
   * The loudness of a file; measured when it is not in the cache.
   *
   * @throws hushrise.core.Problem when the sound cannot be read
   */
  LoudnessSteps of(Path file, Progress progress) {
    FileIdentity identity = FileIdentity.of(file);
    return known.get(identity, progress, p -> make(identity, p));
  }

  private LoudnessSteps make(FileIdentity file, Progress progress) {
    SampleSource sound = sounds.open(file.path(), Project.DEFAULT_SAMPLE_RATE, progress);
    Path stored = cache.file(ContentKeys.of(file), "-3.loudness");
    Optional<StoreFile.Mapped> found = mapped(stored, sound);
    if (found.isEmpty()) {
      float[] values = LoudnessSteps.read(sound, Project.DEFAULT_SAMPLE_RATE, progress);
      try (StoreFile store = StoreFile.create(cache)) {
        store.write(values, values.length);
        store.keep(cache, stored, 1, sound.lengthFrames());
      }
      found = mapped(stored, sound);
    }
    cache.touch(stored);
    return found
        .map(m -> new LoudnessSteps(PeakFiles.floats(m)))
        .orElseThrow(() -> cache.lost("loudness", file.path()));
  }

  private static Optional<StoreFile.Mapped> mapped(Path stored, SampleSource sound) {
    return StoreFile.map(stored).filter(m -> m.frames() == sound.lengthFrames());
  }

  void letGo() {
    known.letGo();
  }
}

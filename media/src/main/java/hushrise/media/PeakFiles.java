package hushrise.media;

import hushrise.core.sound.PeakBuilder;
import hushrise.core.sound.Peaks;
import hushrise.core.sound.SampleSource;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.file.Path;
import java.util.Optional;

/** The peaks of files at the project's rate, kept in the cache. */
final class PeakFiles {

  private final CacheFolder cache;

  PeakFiles(CacheFolder cache) {
    this.cache = cache;
  }

  /** The peaks of a file; made when they are not in the cache. */
  Peaks of(FileIdentity file, SampleSource sound) {
    Path stored = stored(file);
    Optional<StoreFile.Mapped> found = StoreFile.map(stored);
    if (found.isEmpty() || found.get().frames() != sound.lengthFrames()) {
      PeakBuilder builder = new PeakBuilder();
      builder.addAll(sound);
      keep(file, builder);
      found = StoreFile.map(stored);
    }
    cache.touch(stored);
    StoreFile.Mapped peaks = found.orElseThrow(() -> cache.lost("waveform", file.path()));
    return new Peaks(floats(peaks), peaks.frames());
  }

  /** Keeps peaks that were gathered while decoding. */
  void keep(FileIdentity file, PeakBuilder peaks) {
    try (StoreFile store = StoreFile.create(cache)) {
      float[] values = peaks.finish();
      store.write(values, values.length);
      store.keep(cache, stored(file), 1, peaks.frames());
    }
  }

  private Path stored(FileIdentity file) {
    return cache.file(ContentKeys.of(file), "-3.peaks");
  }

  static FloatBuffer floats(StoreFile.Mapped mapped) {
    return mapped.floats().asByteBuffer().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer();
  }
}

package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.sound.PeakBuilder;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The sound of files, mono or stereo at a wanted rate, ready to be read at any place: mapped where
 * it lies when the file is a WAV at that rate, else decoded once into the cache and mapped there.
 */
final class Sounds {

  private static final Logger LOG = LoggerFactory.getLogger(Sounds.class);
  private static final long KEPT = 1_000;

  private record Key(FileIdentity file, int sampleRate) {}

  private final CacheFolder cache;
  private final PeakFiles peaks;
  private final Loading<Key, SampleSource> open = new Loading<>(KEPT);

  Sounds(CacheFolder cache, PeakFiles peaks) {
    this.cache = cache;
    this.peaks = peaks;
  }

  /**
   * A file's sound at a rate; decodes it when it is not in the cache.
   *
   * @throws Problem when it cannot be read
   */
  SampleSource open(Path file, int sampleRate, Progress progress) {
    ReadableFile.require(file);
    FileIdentity identity = FileIdentity.of(file);
    return open.get(new Key(identity, sampleRate), progress, p -> make(identity, sampleRate, p));
  }

  /** Unmaps what nobody uses, soon. */
  void letGo() {
    open.letGo();
  }

  private SampleSource make(FileIdentity file, int sampleRate, Progress progress) {
    Optional<SampleSource> mapped = mappedWav(file.path(), sampleRate);
    if (mapped.isPresent()) {
      return mapped.get();
    }
    Path stored = cache.file(ContentKeys.of(file), "-" + sampleRate + "-3.sound");
    Optional<StoreFile.Mapped> found = StoreFile.map(stored);
    if (found.isEmpty()) {
      FirstLook.pass(file.path(), progress);
      found = StoreFile.map(stored);
    }
    if (found.isEmpty()) {
      decode(file, sampleRate, stored, progress);
      found = StoreFile.map(stored);
    }
    cache.touch(stored);
    return found
        .map(sound -> new StoredSound(sound.floats(), sound.channels()))
        .orElseThrow(() -> cache.lost("sound", file.path()));
  }

  private static Optional<SampleSource> mappedWav(Path file, int sampleRate) {
    try {
      Optional<WavLayout> layout = WavLayout.of(file);
      layout.ifPresent(wav -> requireWhole(wav, file));
      if (layout.isEmpty() || layout.get().sampleRate() != sampleRate) {
        return Optional.empty();
      }
      WavLayout wav = layout.get();
      try (FileChannel channel = FileChannel.open(file)) {
        long bytes = wav.frames() * wav.channels() * wav.bytesPerSample();
        MemorySegment data =
            channel.map(FileChannel.MapMode.READ_ONLY, wav.dataOffset(), bytes, Arena.ofAuto());
        return Optional.of(new MappedWav(wav, data));
      }
    } catch (IOException e) {
      LOG.debug("{} is decoded instead", file, e);
      return Optional.empty();
    }
  }

  private static void requireWhole(WavLayout wav, Path file) {
    if (wav.statedBytes() == 0) {
      throw new Problem(
          "%s holds not a single sample: choose another file, or record it again.".formatted(file));
    }
    if (wav.frames() == 0 || wav.isCutShort()) {
      throw new Problem(
          "%s is cut short: samples are missing at its end; copy it again from its source."
              .formatted(file));
    }
  }

  private void decode(FileIdentity file, int sampleRate, Path target, Progress progress) {
    try (SoundDecoder decoder = SoundDecoder.folded(file.path(), sampleRate);
        StoreFile store = StoreFile.create(cache)) {
      PeakBuilder built = new PeakBuilder();
      int channels = decoder.channels();
      ChunkWriter chunks = new ChunkWriter(store, channels);
      decoder.decodeTo(
          (planar, n, fraction) -> {
            progress.at(fraction);
            built.add(planar[0], planar[channels - 1], channels, 0, n);
            chunks.add(planar[0], planar[channels - 1], n);
          });
      chunks.flush();
      if (sampleRate == Project.DEFAULT_SAMPLE_RATE) {
        peaks.keep(file, built);
      }
      store.keep(cache, target, channels, built.frames());
    }
  }

  /**
   * The sample rate of a file's sound in Hz; for a plain WAV found without FFmpeg.
   *
   * @throws Problem when it cannot be read or has no sound
   */
  static int rateOf(Path file) {
    try {
      Optional<WavLayout> wav = Files.isRegularFile(file) ? WavLayout.of(file) : Optional.empty();
      if (wav.isPresent()) {
        return wav.get().sampleRate();
      }
    } catch (IOException e) {
      LOG.debug("{} is looked at by FFmpeg instead", file, e);
    }
    return Probe.of(file)
        .sound()
        .orElseThrow(() -> new Problem("%s has no sound: choose another file.".formatted(file)))
        .sampleRate();
  }

  /** Whether a file is a WAV, mono or stereo, that can be mapped. */
  static boolean isPlainWav(Path file) {
    try {
      return Files.isRegularFile(file) && WavLayout.of(file).isPresent();
    } catch (IOException e) {
      return false;
    }
  }

  /** Cuts a stream of frames into the chunks of {@link StoredSound}. */
  private static final class ChunkWriter {

    /** Under this a decoder's rest of a sound counts as silence: such numbers are slow to use. */
    private static final float NOTHING = 1e-20f;

    private final StoreFile store;
    private final int channels;
    private final float[][] chunk = new float[2][StoredSound.CHUNK];
    private int filled;

    ChunkWriter(StoreFile store, int channels) {
      this.store = store;
      this.channels = channels;
    }

    void add(float[] left, float[] right, int frames) {
      for (int done = 0; done < frames; ) {
        int n = Math.min(frames - done, StoredSound.CHUNK - filled);
        put(left, done, chunk[0], n);
        put(right, done, chunk[1], n);
        filled += n;
        done += n;
        if (filled == StoredSound.CHUNK) {
          flush();
        }
      }
    }

    private void put(float[] from, int at, float[] to, int n) {
      for (int i = 0; i < n; i++) {
        float sample = from[at + i];
        to[filled + i] = Math.abs(sample) < NOTHING ? 0 : sample;
      }
    }

    void flush() {
      for (int c = 0; c < channels; c++) {
        store.write(chunk[c], filled);
      }
      filled = 0;
    }
  }
}

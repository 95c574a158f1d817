package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Ids;
import hushrise.core.project.Media;
import hushrise.core.project.MediaKind;
import hushrise.core.project.Project;
import hushrise.core.sound.PeakBuilder;
import hushrise.core.sound.Peaks;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The sound of media files, ready to be read at any place: decoded once into the cache, or mapped
 * where it lies when the file is a WAV at the project's rate. Safe for any number of threads.
 */
public final class MediaStore implements SoundLibrary, LoudnessLibrary {

  private static final Logger LOG = LoggerFactory.getLogger(MediaStore.class);

  private static final Map<Pattern, MediaKind> NAMES =
      Map.of(
          Pattern.compile("narrat|voice|speech|spoken|(^|[^a-z])(take|vo)[^a-z]"), MediaKind.VOICE,
          Pattern.compile("music|song|tune|theme|bed[^a-z]"), MediaKind.MUSIC,
          Pattern.compile("(^|[^a-z])(sfx|fx|effect|sound)[^a-z]|horn|bell"), MediaKind.EFFECT);

  /** How long a still counts as being, in seconds. */
  private static final long STILL_SECONDS = 5;

  private final CacheFolder cache;
  private final Map<Path, SampleSource> open = new ConcurrentHashMap<>();
  private final Map<Path, String> keys = new ConcurrentHashMap<>();
  private final Map<Path, LoudnessSteps> steps = new ConcurrentHashMap<>();

  public MediaStore(CacheFolder cache) {
    this.cache = cache;
  }

  /**
   * Takes a file in: finds out what it holds and makes its sound ready.
   *
   * @param kind what it is for; a picture must have a picture, anything else must have sound
   * @throws Problem when the file does not serve
   */
  public Media take(Path file, MediaKind kind, Progress progress) {
    Path absolute = file.toAbsolutePath().normalize();
    Probe probe = Probe.of(absolute);
    int rate = Project.DEFAULT_SAMPLE_RATE;
    boolean picture = kind == MediaKind.PICTURE;
    if (kind.isSeen() && probe.picture().isEmpty()) {
      throw new Problem("%s has no picture: choose a film.".formatted(file));
    }
    if (kind == MediaKind.STILL) {
      return new Media(
          Ids.fresh("media"), absolute, kind, STILL_SECONDS * rate, false, Optional.empty(), "");
    }
    if (!picture && probe.sound().isEmpty()) {
      throw new Problem("%s has no sound: choose another file.".formatted(file));
    }
    boolean hasSound = probe.sound().isPresent();
    long soundFrames = hasSound ? open(absolute, rate, progress).lengthFrames() : 0;
    long length =
        picture ? Math.round(probe.picture().orElseThrow().seconds() * rate) : soundFrames;
    if (length < 1) {
      throw new Problem(
          "%s lasts no time at all: it may be cut short; copy it again from its source."
              .formatted(file));
    }
    return new Media(
        Ids.fresh("media"),
        absolute,
        kind,
        length,
        hasSound,
        picture ? probe.picture().map(Probe.Picture::rate) : Optional.empty(),
        "");
  }

  /**
   * What a file is probably for: a picture or a still when it has one; else what its name says,
   * such as "narration" or "music"; else a voice when its sound is the same on both sides, music
   * when it lasts ten seconds or more, and an effect when it is shorter.
   *
   * @throws Problem when it cannot be read
   */
  public MediaKind guessKind(Path file, Progress progress) {
    Probe probe = Probe.of(file);
    if (probe.picture().isPresent()) {
      return probe.isStill() ? MediaKind.STILL : MediaKind.PICTURE;
    }
    String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
    for (Map.Entry<Pattern, MediaKind> hint : NAMES.entrySet()) {
      if (hint.getKey().matcher(name).find()) {
        return hint.getValue();
      }
    }
    SampleSource sound = open(file, Project.DEFAULT_SAMPLE_RATE, progress);
    if (sound.channels() == 1 || isSameOnBothSides(sound)) {
      return MediaKind.VOICE;
    }
    return probe.seconds() >= 10 ? MediaKind.MUSIC : MediaKind.EFFECT;
  }

  private static boolean isSameOnBothSides(SampleSource sound) {
    int n = 4_096;
    float[] left = new float[n];
    float[] right = new float[n];
    float difference = 0;
    float loudest = 0;
    for (int place = 1; place < 16; place++) {
      sound.read(sound.lengthFrames() * place / 16, n, left, right, 0);
      for (int i = 0; i < n; i++) {
        difference = Math.max(difference, Math.abs(left[i] - right[i]));
        loudest = Math.max(loudest, Math.abs(left[i]));
      }
    }
    return loudest > 0 && difference < loudest * 1e-3;
  }

  /**
   * The sample rate of a file's sound in Hz; for a plain WAV found without FFmpeg.
   *
   * @throws Problem when it cannot be read or has no sound
   */
  public static int soundRate(Path file) {
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

  @Override
  public SampleSource samples(Media media, int sampleRate) {
    return open(media.file(), sampleRate, Progress.NONE);
  }

  @Override
  public LoudnessSteps steps(Media media) {
    return steps(media, Progress.NONE);
  }

  /**
   * As {@link #steps(Media)}.
   *
   * @throws Problem when the sound cannot be read
   */
  public LoudnessSteps steps(Media item, Progress progress) {
    LoudnessSteps known = steps.get(item.file());
    if (known == null) {
      known = stepsOf(item.file(), progress);
      steps.put(item.file(), known);
    }
    return known;
  }

  private LoudnessSteps stepsOf(Path file, Progress progress) {
    SampleSource sound = open(file, Project.DEFAULT_SAMPLE_RATE, progress);
    Path stored = cache.file(key(file), "-2.loudness");
    Optional<StoreFile.Mapped> found = mappedSteps(stored, sound);
    if (found.isEmpty()) {
      float[] values = LoudnessSteps.read(sound, Project.DEFAULT_SAMPLE_RATE, progress);
      try (StoreFile store = StoreFile.create(cache)) {
        store.write(values, values.length);
        store.keep(cache, stored, 1, sound.lengthFrames());
      }
      found = mappedSteps(stored, sound);
    }
    cache.touch(stored);
    return new LoudnessSteps(
        floats(
            found.orElseThrow(
                () ->
                    new Problem(
                        "The cache lost the loudness of %s while it was in use: try again."
                            .formatted(file)))));
  }

  private static Optional<StoreFile.Mapped> mappedSteps(Path stored, SampleSource sound) {
    return StoreFile.map(stored).filter(m -> m.frames() == sound.lengthFrames());
  }

  private static FloatBuffer floats(StoreFile.Mapped mapped) {
    return mapped.floats().asByteBuffer().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer();
  }

  /**
   * A file's sound at a rate; decodes it when it is not in the cache.
   *
   * @throws Problem when it cannot be read
   */
  public SampleSource open(Path file, int sampleRate, Progress progress) {
    Path absolute = file.toAbsolutePath().normalize();
    SampleSource known = open.get(absolute);
    if (known != null) {
      return known;
    }
    synchronized (this) {
      return open.computeIfAbsent(absolute, f -> make(f, sampleRate, progress));
    }
  }

  private SampleSource make(Path file, int sampleRate, Progress progress) {
    Optional<SampleSource> mapped = mappedWav(file, sampleRate);
    if (mapped.isPresent()) {
      return mapped.get();
    }
    Path stored = cache.file(key(file), "-" + sampleRate + ".sound");
    Optional<StoreFile.Mapped> found = StoreFile.map(stored);
    if (found.isEmpty()) {
      decode(file, sampleRate, stored, progress);
      found = StoreFile.map(stored);
    }
    cache.touch(stored);
    StoreFile.Mapped sound =
        found.orElseThrow(
            () ->
                new Problem(
                    "The cache lost the sound of %s while it was in use: try again."
                        .formatted(file)));
    return new StoredSound(sound.floats(), sound.channels());
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
      return Optional.empty();
    }
  }

  private static void requireWhole(WavLayout wav, Path file) {
    if (wav.frames() == 0 || wav.isCutShort()) {
      throw new Problem(
          "%s is cut short: samples are missing at its end; copy it again from its source."
              .formatted(file));
    }
  }

  private void decode(Path file, int sampleRate, Path target, Progress progress) {
    try (SoundDecoder decoder = new SoundDecoder(file, sampleRate);
        StoreFile store = StoreFile.create(cache)) {
      PeakBuilder peaks = new PeakBuilder();
      ChunkWriter chunks = new ChunkWriter(store, decoder.channels());
      decoder.decodeTo(
          (left, right, n, fraction) -> {
            progress.at(fraction);
            peaks.add(left, right, decoder.channels(), 0, n);
            chunks.add(left, right, n);
          });
      chunks.flush();
      storePeaks(file, peaks);
      store.keep(cache, target, decoder.channels(), peaks.frames());
    }
  }

  /** Cuts a stream of frames into the chunks of {@link StoredSound}. */
  private static final class ChunkWriter {
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
        System.arraycopy(left, done, chunk[0], filled, n);
        System.arraycopy(right, done, chunk[1], filled, n);
        filled += n;
        done += n;
        if (filled == StoredSound.CHUNK) {
          flush();
        }
      }
    }

    void flush() {
      for (int c = 0; c < channels; c++) {
        store.write(chunk[c], filled);
      }
      filled = 0;
    }
  }

  /**
   * The peaks of a file's sound; made when they are not in the cache.
   *
   * @throws Problem when the sound cannot be read
   */
  public Peaks peaks(Path file, int sampleRate) {
    SampleSource sound = open(file, sampleRate, Progress.NONE);
    Path stored = peaksFile(file);
    Optional<StoreFile.Mapped> found = StoreFile.map(stored);
    if (found.isEmpty() || found.get().frames() != sound.lengthFrames()) {
      PeakBuilder builder = new PeakBuilder();
      float[] left = new float[1 << 14];
      float[] right = new float[1 << 14];
      for (long at = 0; at < sound.lengthFrames(); at += left.length) {
        int n = (int) Math.min(left.length, sound.lengthFrames() - at);
        sound.read(at, n, left, right, 0);
        builder.add(left, right, sound.channels(), 0, n);
      }
      storePeaks(file, builder);
      found = StoreFile.map(stored);
    }
    cache.touch(stored);
    StoreFile.Mapped peaks =
        found.orElseThrow(
            () ->
                new Problem(
                    "The cache lost the waveform of %s while it was in use: try again."
                        .formatted(file)));
    return new Peaks(floats(peaks), peaks.frames());
  }

  private void storePeaks(Path file, PeakBuilder peaks) {
    try (StoreFile store = StoreFile.create(cache)) {
      float[] values = peaks.finish();
      store.write(values, values.length);
      store.keep(cache, peaksFile(file), 1, peaks.frames());
    }
  }

  private Path peaksFile(Path file) {
    return cache.file(key(file.toAbsolutePath().normalize()), ".peaks");
  }

  String key(Path file) {
    return keys.computeIfAbsent(file, CacheFolder::keyOf);
  }
}

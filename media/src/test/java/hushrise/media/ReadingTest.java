package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Peaks;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.FrameRate;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.IntBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ReadingTest extends MediaTestCase {

  private static final double AMPLITUDE = 0.4;

  /** A 1 kHz tone of two seconds in a file of another maker. */
  private Path tone(String name, String encoder, int sampleRate, String layout) {
    return tone(name, encoder, sampleRate, layout, 2);
  }

  private Path tone(String name, String encoder, int sampleRate, String layout, int seconds) {
    return new SoundFileMaker(encoder, sampleRate, layout, seconds)
        .write(folder.resolve(name), t -> AMPLITUDE * Math.sin(2 * Math.PI * 1000 * t));
  }

  @ParameterizedTest(name = "{0} at {1} Hz")
  @CsvSource({
    "a.wav,  44100, pcm_s16le",
    "b.wav,  48000, pcm_u8",
    "c.aiff, 44100, pcm_s16be",
    "d.flac, 96000, flac",
    "e.mp3,  44100, libmp3lame",
    "f.ogg,  44100, vorbis",
    "g.opus, 48000, libopus",
    "h.m4a,  32000, aac",
    "i.aac,  48000, aac",
    "j.mp4,  48000, aac",
    "k.mov,  44100, pcm_s16le",
    "l.mkv,  44100, flac",
    "m.webm, 48000, libopus",
    "n.avi,  22050, pcm_s16le",
    "o.wav,   8000, pcm_s16le",
    "p.m4a,  44100, alac",
    "q.wma,  44100, wmav2",
    "r.caf,  44100, pcm_s16be",
    "s.flv,  44100, libmp3lame",
    "t.au,   44100, pcm_s16be",
    "u.wv,   44100, wavpack",
    "x.tta,  44100, tta",
    "v.ac3,  48000, ac3",
    "w.eac3, 48000, eac3"
  })
  void everyFormatIsDecodedToItsTone(String name, int rate, String encoder) {
    Path file = tone(name, encoder, rate, "stereo");
    SampleSource sound = open(file);
    assertThat(sound.channels()).isEqualTo(2);
    assertThat(sound.lengthFrames() / (double) RATE).isCloseTo(2, within(0.06));
    float[] second = read(sound, RATE / 2, RATE);
    assertThat(frequency(second)).isBetween(999, 1001);
    assertThat(20 * Math.log10(rms(second)))
        .isCloseTo(20 * Math.log10(AMPLITUDE * Math.sqrt(0.5)), within(0.5));
  }

  @Test
  void monoStaysMonoAndSurroundIsFoldedToStereo() {
    Path mono = tone("mono.flac", "flac", 44_100, "mono");
    assertThat(open(mono).channels()).isEqualTo(1);
    Path surround = tone("surround.flac", "flac", 48_000, "5.1");
    SampleSource folded = open(surround);
    assertThat(folded.channels()).isEqualTo(2);
    assertThat(frequency(read(folded, RATE / 2, RATE))).isBetween(999, 1001);
  }

  @ParameterizedTest
  @ValueSource(strings = {"WAV_16", "WAV_24", "WAV_32_FLOAT"})
  void aWavAtTheProjectsRateIsMappedWhereItLies(String format) throws IOException {
    Path file = folder.resolve("tone.wav");
    float[] tone = sine(100, 0.7, RATE);
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.valueOf(format), RATE)) {
      writer.write(tone, tone, tone.length);
      writer.finish();
    }
    SampleSource sound = open(file);
    assertThat(sound).isInstanceOf(MappedWav.class);
    assertThat(sound.lengthFrames()).isEqualTo(RATE);
    float[] found = read(sound, -10, RATE + 20);
    assertThat(found[5]).isZero();
    assertThat(found[RATE + 15]).isZero();
    float dithered = 1.5f / (1 << 15);
    for (int i = 0; i < RATE; i += 101) {
      assertThat(found[i + 10])
          .isCloseTo(tone[i], within(format.equals("WAV_16") ? dithered : 2e-7f));
    }
    try (Stream<Path> cached = Files.list(folder.resolve("cache"))) {
      assertThat(cached).isEmpty();
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"WAV_16", "WAV_24", "WAV_32_FLOAT"})
  void bothSidesOfAMappedWavAreWhereTheyBelongFromAnyPlaceOn(String format) {
    Path file = folder.resolve("sides.wav");
    float[] left = sine(100, 0.7, RATE);
    float[] right = sine(130, 1.2, RATE);
    boolean whole = !format.equals("WAV_32_FLOAT");
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.valueOf(format), RATE)) {
      for (int at = 0; at < RATE; at += 7_001) { // so that blocks end anywhere in its buffer
        int end = Math.min(RATE, at + 7_001);
        writer.write(
            Arrays.copyOfRange(left, at, end), Arrays.copyOfRange(right, at, end), end - at);
      }
      writer.finish();
    }
    SampleSource sound = open(file);
    float exact = format.equals("WAV_16") ? 1.5f / (1 << 15) : 2e-7f;
    for (int from : new int[] {-3, 0, 1, 4_095, 17_777, RATE - 9_000}) {
      float[] l = new float[9_010];
      float[] r = new float[9_010];
      sound.read(from, 9_000, l, r, 10);
      for (int i = Math.max(0, -from); i < 9_000; i += 37) {
        assertThat(l[10 + i]).isCloseTo(left[from + i], within(exact));
        float loud = whole ? Math.clamp(right[from + i], -1, 1) : right[from + i];
        assertThat(r[10 + i]).isCloseTo(loud, within(exact));
      }
      assertThat(l[9]).isZero();
      assertThat(r[9]).isZero();
    }
  }

  /** A tone of a third of a step is nothing but zeros, unless it is dithered. */
  @ParameterizedTest
  @ValueSource(strings = {"WAV_16", "AIFF_16"})
  void whatIsQuieterThanAStepOfSixteenBitsIsStillThere(String name) {
    OutputFormat format = OutputFormat.valueOf(name);
    Path file = folder.resolve("whisper." + format.ending());
    float[] tone = sine(1000, 0.33 / (1 << 15), 4 * RATE);
    try (FileMixWriter writer = FileMixWriter.ofSound(file, format, RATE)) {
      writer.write(tone, tone, tone.length);
      writer.finish();
    }
    float[] found = read(open(file), 0, 4 * RATE);
    double alike = 0;
    double own = 0;
    for (int i = 0; i < tone.length; i++) {
      alike += found[i] * tone[i];
      own += tone[i] * tone[i];
    }
    assertThat(alike / own).isCloseTo(1, within(0.1));
  }

  @Test
  void aStoredSoundReadsTheSameFromEveryPlace() {
    Random noise = new Random(4);
    Path file =
        new SoundFileMaker("flac", RATE, "stereo", 1)
            .write(folder.resolve("n.flac"), t -> noise.nextDouble(-0.5, 0.5));
    SampleSource sound = open(file);
    float[] whole = read(sound, 0, RATE);
    for (int from : new int[] {0, 1, 8_000, 8_191, 8_192, 20_000, 40_960}) {
      assertThat(read(sound, from, 7_000))
          .containsExactly(java.util.Arrays.copyOfRange(whole, from, from + 7_000));
    }
  }

  @Test
  void decodingHappensOnceAndADamagedCacheFileIsMadeAgain() throws IOException {
    Path file = tone("t.mp3", "libmp3lame", 44_100, "stereo");
    float[] first = read(open(file), 0, RATE);
    Path cached = cachedSound();
    Object key = Files.readAttributes(cached, "unix:ino").get("ino");
    assertThat(read(freshStore().open(file, RATE, Progress.NONE), 0, RATE)).containsExactly(first);
    assertThat(Files.readAttributes(cached, "unix:ino").get("ino")).isEqualTo(key);
    try (RandomAccessFile damage = new RandomAccessFile(cached.toFile(), "rw")) {
      damage.setLength(damage.length() - 1_000);
    }
    assertThat(read(freshStore().open(file, RATE, Progress.NONE), 0, RATE)).containsExactly(first);
    Random random = new Random(3);
    for (int i = 0; i < 12; i++) {
      try (RandomAccessFile damage = new RandomAccessFile(cached.toFile(), "rw")) {
        long at = random.nextLong(StoreFile.HEAD, damage.length());
        damage.seek(at);
        int was = damage.read();
        damage.seek(at);
        damage.write(was ^ 1 << random.nextInt(8));
      }
      assertThat(read(freshStore().open(file, RATE, Progress.NONE), 0, RATE))
          .as("a bit of it changed, %d", i)
          .containsExactly(first);
    }
  }

  private Path cachedSound() throws IOException {
    try (Stream<Path> cached = Files.list(folder.resolve("cache"))) {
      return cached.filter(p -> p.toString().endsWith(".sound")).findFirst().orElseThrow();
    }
  }

  @Test
  void theCacheKeepsToItsSizeAndDropsWhatIsLongestUnused() throws IOException {
    CacheFolder small = new CacheFolder(folder.resolve("small"), 1_200_000);
    MediaStore bounded = new MediaStore(small);
    for (int i = 0; i < 5; i++) {
      double hz = 300 + i;
      Path file =
          new SoundFileMaker("flac", RATE, "mono", 2)
              .write(folder.resolve("s" + i + ".flac"), t -> 0.4 * Math.sin(2 * Math.PI * hz * t));
      bounded.open(file, RATE, Progress.NONE);
    }
    try (Stream<Path> left = Files.list(folder.resolve("small"))) {
      List<Path> files = left.toList();
      assertThat(files.stream().mapToLong(p -> p.toFile().length()).sum())
          .isLessThanOrEqualTo(1_200_000);
      assertThat(files.stream().filter(p -> p.toString().endsWith(".sound")).count())
          .isBetween(1L, 3L);
    }
  }

  @Test
  void cancellingADecodeLeavesNothingBehind() throws IOException {
    Path file = tone("long.flac", "flac", 44_100, "mono", 20);
    assertThatThrownBy(
            () ->
                store.open(
                    file,
                    RATE,
                    fraction -> {
                      throw new CancellationException();
                    }))
        .isInstanceOf(CancellationException.class);
    try (Stream<Path> left = Files.list(folder.resolve("cache"))) {
      assertThat(left).isEmpty();
    }
  }

  @Test
  void peaksComeFromTheCacheAndFitTheSound() {
    Path file = tone("t.flac", "flac", 48_000, "stereo");
    Peaks peaks = store.peaks(file);
    float[] found = new float[3];
    peaks.over(10_000, 60_000, found);
    assertThat((double) found[1]).isCloseTo(AMPLITUDE, within(0.01));
    assertThat((double) found[2]).isCloseTo(AMPLITUDE * Math.sqrt(0.5), within(0.01));
    assertThat(freshStore().peaks(file).lengthFrames()).isEqualTo(peaks.lengthFrames());
  }

  @Test
  void slidesThatStandForSecondsMakeAProjectThatIsReadAgain() {
    FrameRate slow = new FrameRate(1, 5);
    Path file = folder.resolve("slides.mp4");
    try (DrawnFilmWriter writer = new DrawnFilmWriter(file, OutputFormat.MP4, 96, 64, slow, 0)) {
      for (int i = 0; i < 4; i++) {
        writer.addPicture(new int[96 * 64]);
      }
      writer.finish();
    }
    Media media = store.take(file, MediaKind.PICTURE, Progress.NONE);
    assertThat(media.pictureRate()).hasValue(slow);
    Path kept = folder.resolve("slides.hushrise");
    ProjectFile.save(Project.empty("slides").withMedia(media).withPictureRate(slow), kept);
    assertThat(ProjectFile.load(kept).pictureRate()).isEqualTo(slow);
  }

  @Test
  void aFilmTellsItsPictureAndItsSound() {
    Path file = film("film.mp4", OutputFormat.MP4, 60, true);
    Media media = store.take(file, MediaKind.PICTURE, Progress.NONE);
    assertThat(media.pictureRate()).hasValue(new FrameRate(25, 1));
    assertThat(media.hasSound()).isTrue();
    assertThat(media.lengthFrames()).isEqualTo(60L * RATE / 25);
    assertThat(Probe.of(file).picture().orElseThrow().width()).isEqualTo(96);
    assertThat(store.guessKind(file, Progress.NONE)).isEqualTo(MediaKind.PICTURE);
  }

  @Test
  void whatAFileIsForIsGuessedFromItsNameAndItsSound() {
    assertThat(store.guessKind(tone("narration-7.wav", "pcm_s16le", RATE, "stereo"), Progress.NONE))
        .isEqualTo(MediaKind.VOICE);
    assertThat(store.guessKind(tone("intake.wav", "pcm_s16le", RATE, "stereo"), Progress.NONE))
        .as("both sides alike")
        .isEqualTo(MediaKind.VOICE);
    assertThat(store.guessKind(tone("theme-song.wav", "pcm_s16le", RATE, "mono"), Progress.NONE))
        .isEqualTo(MediaKind.MUSIC);
  }

  @Test
  void everyPictureIsFoundAtItsTime() {
    Path file = film("film.mp4", OutputFormat.MP4, 75, false);
    try (PictureReader reader = new PictureReader(file, 96, 64)) {
      for (int number : new int[] {0, 1, 2, 30, 31, 5, 74, 60, 12, 73}) {
        PictureReader.Picture picture = reader.at(number / 25.0 + 0.01).orElseThrow();
        int grey = picture.argb()[96 * 32 + 48] & 0xFF;
        assertThat(grey).as("picture %d", number).isCloseTo(greyOf(number), within(4));
      }
      assertThat(reader.at(99).orElseThrow().argb()[0] & 0xFF).isCloseTo(greyOf(74), within(4));
    }
  }

  @Test
  void aPictureThatIsStillShownIsNotGivenAgain() {
    Path file = film("film.mp4", OutputFormat.MP4, 75, false);
    try (PictureReader reader = new PictureReader(file, 96, 64)) {
      IntBuffer pixels = IntBuffer.allocate(reader.width() * reader.height());
      assertThat(reader.changedAt(0.01, pixels)).isTrue();
      assertThat(reader.changedAt(0.03, pixels)).isFalse();
      for (int number : new int[] {1, 2, 40, 3, 74}) {
        assertThat(reader.changedAt(number / 25.0 + 0.01, pixels)).isTrue();
        int grey = pixels.get(96 * 32 + 48) & 0xFF;
        assertThat(grey).as("picture %d", number).isCloseTo(greyOf(number), within(4));
        assertThat(reader.changedAt(number / 25.0 + 0.02, pixels)).isFalse();
      }
    }
  }

  @Test
  void whatCannotBeReadIsSaidInWordsThatNameTheFile() throws IOException {
    assertProblem(folder.resolve("missing.wav"), "There is no file");
    assertProblem(Files.createFile(folder.resolve("empty.wav")), "is empty");
    assertProblem(Files.createDirectory(folder.resolve("folder")), "is a folder");
    assertProblem(
        Files.writeString(folder.resolve("notes.mp3"), "just words, nothing else\n".repeat(200)),
        "can be read");
    assertProblem(film("mute.mp4", OutputFormat.MP4, 10, false), "has no sound");
    Path sound = tone("sound.flac", "flac", 48_000, "mono");
    assertThatThrownBy(() -> store.take(sound, MediaKind.PICTURE, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("has no picture");
  }

  private void assertProblem(Path file, String words) {
    assertThatThrownBy(() -> store.take(file, MediaKind.MUSIC, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(file.toString())
        .hasMessageContaining(words);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "list.m3u8 | #EXTM3U\\n#EXT-X-TARGETDURATION:2\\n#EXTINF:2,\\ntone.wav\\n#EXT-X-ENDLIST\\n",
        "list.m3u8 | #EXTM3U\\n#EXT-X-TARGETDURATION:2\\n#EXTINF:2,\\nhttp://127.0.0.1:9/a.ts\\n#EXT-X-ENDLIST\\n",
        "list.ffconcat | ffconcat version 1.0\\nfile tone.wav\\n",
        "list.mp3 | ffconcat version 1.0\\nfile tone.wav\\n",
        "list.mpd | <?xml version=\"1.0\"?><MPD xmlns=\"urn:mpeg:dash:schema:mpd:2011\"/>",
        "list.sdp | v=0\\no=- 0 0 IN IP4 127.0.0.1\\ns=x\\nc=IN IP4 127.0.0.1\\nt=0 0\\nm=audio 5004 RTP/AVP 0\\n"
      })
  void aPlaylistOrManifestIsNoMediaAndNothingItNamesIsOpened(String name, String content)
      throws IOException {
    tone("tone.wav", "pcm_s16le", 48_000, "mono");
    Path list = Files.writeString(folder.resolve(name), content.replace("\\n", "\n"));
    assertProblem(list, "can be read");
  }

  @Test
  void aStreamThatChangesItsChannelsAndItsRateGoesOn() throws IOException {
    Path stereo = tone("1.mp3", "libmp3lame", 44_100, "stereo", 2);
    Path mono = tone("2.mp3", "libmp3lame", 44_100, "mono", 2);
    Path slower = tone("3.mp3", "libmp3lame", 32_000, "stereo", 2);
    for (List<Path> order :
        List.of(
            List.of(stereo, mono, slower),
            List.of(mono, slower, stereo),
            List.of(slower, stereo, mono))) {
      Path joined = folder.resolve("joined-" + order.getFirst().getFileName());
      try (OutputStream out = Files.newOutputStream(joined)) {
        for (Path part : order) {
          Files.copy(part, out);
        }
      }
      SampleSource sound = open(joined);
      assertThat(sound.lengthFrames()).isBetween(6L * RATE - RATE / 4, 6L * RATE + RATE / 4);
      for (int second : new int[] {0, 3, 5}) {
        float[] heard = read(sound, second * (long) RATE + RATE / 4, RATE / 2);
        assertThat(rms(heard))
            .isBetween(0.95 * AMPLITUDE / Math.sqrt(2), AMPLITUDE / Math.sqrt(2) * 1.05);
        assertThat(frequency(heard)).isBetween(499, 501);
      }
    }
  }
}

package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Files that end before their end are taken for what is there, and that is said, or are refused.
 */
class CutShortTest extends MediaTestCase {

  private Path part(Path whole, double share, String name) throws IOException {
    byte[] bytes = Files.readAllBytes(whole);
    return Files.write(
        folder.resolve(name), Arrays.copyOf(bytes, (int) Math.round(bytes.length * share)));
  }

  private Path tone(String name, String encoder, int rate, int seconds) {
    return new SoundFileMaker(encoder, rate, "stereo", seconds)
        .write(folder.resolve(name), t -> 0.3 * Math.sin(2000 * t));
  }

  @ParameterizedTest
  @EnumSource(
      value = OutputFormat.class,
      names = {"MKV", "WEBM"})
  void aFilmThatBreaksOffIsSaidAtAnyPlace(OutputFormat format) throws IOException {
    String ending = "." + format.name().toLowerCase(Locale.ROOT);
    Path whole = film("whole" + ending, format, 100, true);
    assertThat(CutShort.seems(whole)).isFalse();
    Random random = new Random(11);
    for (int i = 0; i < 20; i++) {
      double share = 0.1 + 0.89 * random.nextDouble();
      assertThat(CutShort.seems(part(whole, share, "part" + ending)))
          .as("cut at %.3f", share)
          .isTrue();
    }
    Media half = store.take(part(whole, 0.5, "half" + ending), MediaKind.PICTURE, Progress.NONE);
    assertThat(half.cutShort()).isTrue();
    assertThat(half.lengthFrames() / 48_000.0).isBetween(0.5, 3.5);
    assertThat(store.take(whole, MediaKind.PICTURE, Progress.NONE).cutShort()).isFalse();
  }

  @Test
  void aSoundThatBreaksOffIsSaid() throws IOException {
    Path whole = tone("whole.ogg", "libopus", RATE, 6);
    assertThat(CutShort.seems(whole)).isFalse();
    for (double share : new double[] {0.3, 0.5, 0.77, 0.99}) {
      assertThat(CutShort.seems(part(whole, share, "part.ogg"))).isTrue();
    }
    Media half = store.take(part(whole, 0.5, "half.ogg"), MediaKind.MUSIC, Progress.NONE);
    assertThat(half.cutShort()).isTrue();
    assertThat(half.lengthFrames() / 48_000.0).isBetween(2.0, 4.0);
  }

  @ParameterizedTest
  @CsvSource({"aac, aac", "avi, libmp3lame", "caf, pcm_s16be", "wma, wmav2", "flv, libmp3lame"})
  void aStreamThatBreaksOffIsSaid(String ending, String encoder) throws IOException {
    Path whole = tone("whole." + ending, encoder, RATE, 6);
    assertThat(CutShort.seems(whole)).isFalse();
    for (double share : new double[] {0.3, 0.5, 0.77, 0.99}) {
      assertThat(CutShort.seems(part(whole, share, "part." + ending))).isTrue();
    }
  }

  @Test
  void anAviWhoseWriterCountedItsHeadOrLeftOutAByteIsWhole() throws IOException {
    for (int counted : new int[] {1000, 1008, 1001}) {
      ByteBuffer avi = ByteBuffer.allocate(1008 + counted % 2).order(ByteOrder.LITTLE_ENDIAN);
      avi.put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(counted);
      avi.put("AVI ".getBytes(StandardCharsets.US_ASCII));
      Path file = Files.write(folder.resolve("whole.avi"), avi.array());
      assertThat(CutShort.seems(file)).as("%d counted", counted).isFalse();
      assertThat(CutShort.seems(part(file, 0.9, "part.avi"))).isTrue();
    }
  }

  @Test
  void aLastPictureThatStandsWhileTheSoundGoesOnIsWhole() {
    for (OutputFormat format : new OutputFormat[] {OutputFormat.MKV, OutputFormat.MP4}) {
      Path slides =
          new FilmFileMaker(format, List.of(0.0, 0.04, 1.5, 1.54), 0, 12, 1.5, new int[0])
              .write(folder.resolve("slides." + format.name().toLowerCase(Locale.ROOT)));
      Media film = store.take(slides, MediaKind.PICTURE, Progress.NONE);
      assertThat(film.cutShort()).as(format.name()).isFalse();
    }
  }

  /** The duration in a Matroska file's head is a float behind its own id. */
  @Test
  void aLengthThatOnlyStandsInTheFileIsNotBelieved() throws IOException {
    Path whole = film("claim.mkv", OutputFormat.MKV, 100, true);
    byte[] bytes = Files.readAllBytes(whole);
    int at = 0;
    while (!(bytes[at] == 0x44 && bytes[at + 1] == (byte) 0x89 && bytes[at + 2] == (byte) 0x88)) {
      at++;
    }
    try (RandomAccessFile file = new RandomAccessFile(whole.toFile(), "rw")) {
      file.seek(at + 3);
      file.writeDouble(1e12);
    }
    Media media = store.take(whole, MediaKind.PICTURE, Progress.NONE);
    assertThat(media.lengthFrames() / 48_000.0).isCloseTo(4, within(0.1));
  }

  @ParameterizedTest
  @CsvSource({
    "cut.wav,  48000, pcm_s16le",
    "cut2.wav, 44100, pcm_s16le",
    "cut.flac, 48000, flac",
    "cut.m4a,  48000, aac"
  })
  void aFileThatIsCutShortIsRefused(String name, int rate, String encoder) throws IOException {
    Path file = tone(name, encoder, rate, 8);
    try (RandomAccessFile cut = new RandomAccessFile(file.toFile(), "rw")) {
      cut.setLength(cut.length() / 2);
    }
    assertRefused(file, "cut short");
  }

  /** As a recorder leaves it that was killed: its head says that it holds nothing. */
  @ParameterizedTest
  @ValueSource(ints = {44_100, 48_000})
  void aRecordingThatWasNeverBroughtToItsEndIsReadWhole(int rate) throws IOException {
    Path file = tone("take.wav", "pcm_s16le", rate, 3);
    setDataSize(file, 0);
    SampleSource sound = open(file);
    assertThat(sound.lengthFrames()).isCloseTo(3L * RATE, within(RATE / 100L));
    assertThat(frequency(read(sound, 2L * RATE, RATE / 2))).isBetween(158, 160);
  }

  @Test
  void aRecordingWithoutASampleIsRefused() throws IOException {
    Path file = tone("take.wav", "pcm_s16le", RATE, 3);
    long head = setDataSize(file, 0);
    try (RandomAccessFile cut = new RandomAccessFile(file.toFile(), "rw")) {
      cut.setLength(head);
    }
    assertRefused(file, "not a single sample");
  }

  /** Changes what a WAV says of its samples' size; gives where they begin. */
  private static long setDataSize(Path file, int bytes) throws IOException {
    byte[] content = Files.readAllBytes(file);
    int data = new String(content, StandardCharsets.ISO_8859_1).indexOf("data");
    ByteBuffer.wrap(content).order(ByteOrder.LITTLE_ENDIAN).putInt(data + 4, bytes);
    Files.write(file, content);
    return data + 8;
  }

  private void assertRefused(Path file, String words) {
    assertThatThrownBy(() -> store.take(file, MediaKind.MUSIC, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(file.toString())
        .hasMessageContaining(words);
  }
}

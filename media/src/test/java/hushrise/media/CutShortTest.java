package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
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

/** Files that end before their end are taken for what is there, and that is said. */
class CutShortTest extends MediaTestCase {

  private Path part(Path whole, double share, String name) throws IOException {
    byte[] bytes = Files.readAllBytes(whole);
    return Files.write(
        folder.resolve(name), Arrays.copyOf(bytes, (int) Math.round(bytes.length * share)));
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
    Path whole =
        new SoundFileMaker("libopus", RATE, "stereo", 6)
            .write(folder.resolve("whole.ogg"), t -> 0.3 * Math.sin(t * 2000));
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
    Path whole =
        new SoundFileMaker(encoder, RATE, "stereo", 6)
            .write(folder.resolve("whole." + ending), t -> 0.3 * Math.sin(t * 2000));
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
}

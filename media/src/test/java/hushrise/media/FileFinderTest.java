package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Files that lie elsewhere now. */
class FileFinderTest extends MediaTestCase {

  private Path places;
  private Media song;

  @BeforeEach
  void makeSong() throws IOException {
    places = Files.createDirectories(folder.resolve("places"));
    song = store.take(tone("song.wav", 3, 440), MediaKind.MUSIC, Progress.NONE);
  }

  private Path tone(String name, int seconds, double hz) {
    return new SoundFileMaker("pcm_s16le", RATE, "stereo", seconds)
        .write(folder.resolve(name), t -> 0.3 * Math.sin(t * hz * 2 * Math.PI));
  }

  private Optional<Path> found(Media media) {
    return Optional.ofNullable(
        store.find(List.of(media), List.of(places), Progress.NONE).get(media.id()));
  }

  @Test
  void theContentWinsOverTheName() throws IOException {
    Path renamed = Files.createDirectories(places.resolve("deep/er")).resolve("renamed.wav");
    Files.move(song.file(), renamed);
    Files.move(tone("other.wav", 3, 330), places.resolve("song.wav"));
    assertThat(found(song)).contains(renamed);
  }

  @Test
  void withoutAKnownContentItIsANameThatLastsAsLongInAFolderOfTheSameName() throws IOException {
    Media unknown = song.withContent(Optional.empty());
    Path elsewhere = Files.createDirectories(places.resolve("elsewhere")).resolve("song.wav");
    Path alike =
        Files.createDirectories(places.resolve(folder.getFileName().toString()))
            .resolve("song.wav");
    Files.copy(song.file(), elsewhere);
    Files.copy(song.file(), alike);
    Files.move(
        tone("long.wav", 9, 440), Files.createDirectories(places.resolve("a")).resolve("song.wav"));
    assertThat(found(unknown)).contains(alike);
    Files.delete(alike);
    assertThat(found(unknown)).contains(elsewhere);
    Files.delete(elsewhere);
    assertThat(found(unknown)).as("one of nine seconds is another song").isEmpty();
  }

  @Test
  void aDeviceIsNoFile() {
    assertThat(found(song.withFile(Path.of("/dev/zero")))).isEmpty();
    assertThatThrownBy(() -> store.take(Path.of("/dev/zero"), MediaKind.MUSIC, Progress.NONE))
        .hasMessageContaining("/dev/zero is a device or a pipe");
  }
}

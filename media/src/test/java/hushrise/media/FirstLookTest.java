package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Files that nobody here has decoded before, decoded by another process first. */
class FirstLookTest extends MediaTestCase {

  private static final FirstLook.Bounds TIGHT =
      new FirstLook.Bounds(Duration.ofSeconds(3), 150L << 20);

  private CacheFolder cache;
  private FirstLook look;

  @BeforeEach
  void makeCache() {
    cache = new CacheFolder(folder.resolve("cache"), 1L << 30);
  }

  @AfterEach
  void end() {
    if (look != null) {
      look.close();
    }
  }

  private void inForce(boolean harmed) {
    look =
        new FirstLook(
            () -> cache,
            c -> harmed ? HarmedLooker.command() : LookingMain.command(c),
            harmed ? TIGHT : FirstLook.Bounds.USUAL);
    look.takeForce();
  }

  private Path tone(String name, double hz) {
    return new SoundFileMaker("flac", 44_100, "stereo", 3)
        .write(folder.resolve(name), t -> 0.3 * Math.sin(2 * Math.PI * hz * t));
  }

  private long inCache(String ending) throws IOException {
    try (Stream<Path> all = Files.list(folder.resolve("cache"))) {
      return all.filter(f -> f.toString().endsWith(ending)).count();
    }
  }

  private FileIdentity identity(Path file) {
    return FileIdentity.of(file);
  }

  @Test
  void theOtherProcessDecodesIntoTheCacheAndIsAskedOnce() throws IOException {
    Path file = tone("tone.flac", 440);
    long plain = open(file).lengthFrames();
    Path other = tone("other.flac", 300);
    inForce(false);
    look.startAhead();
    look.admit(identity(other), Progress.NONE);
    assertThat(inCache(".sound")).as("both").isEqualTo(2);
    assertThat(store.take(other, MediaKind.MUSIC, Progress.NONE).lengthFrames()).isEqualTo(plain);
    assertThat(frequency(read(open(other), RATE, RATE))).isBetween(299, 301);
    look.close();

    look = new FirstLook(() -> cache, c -> List.of("/nowhere/java"), TIGHT);
    assertThatCode(() -> look.admit(identity(other), Progress.NONE)).doesNotThrowAnyException();
    assertThat(inCache(".seen-8.1")).isEqualTo(1);
  }

  @Test
  void theKeyThatComesWithAFileCountsOnlyForTheFileAsItWas() throws IOException {
    FileIdentity was = identity(tone("a tone, été.flac", 440));
    FileIdentity now = new FileIdentity(was.path(), was.size() + 1, was.modifiedNanos(), "");
    String key = "f".repeat(32);
    try (LookingProcess process = new LookingProcess(LookingMain.command(cache))) {
      process.look(now, key, FirstLook.Bounds.USUAL, Progress.NONE);
      assertThat(inCache("-48000-3.sound")).isEqualTo(1);
      assertThat(inCache(key + "-48000-3.sound")).isZero();
      Path other = tone("other.flac", 300);
      process.look(identity(other), key, FirstLook.Bounds.USUAL, Progress.NONE);
      assertThat(inCache(key + "-48000-3.sound")).isEqualTo(1);
    }
  }

  @Test
  void aFilmIsLookedAtWithItsSoundAndPicture() throws IOException {
    inForce(false);
    look.admit(identity(Path.of("../demo/data/first-ferry.mp4")), Progress.NONE);
    assertThat(inCache(".sound")).isEqualTo(1);
    assertThat(inCache(".seen-8.1")).isEqualTo(1);
  }

  @Test
  void whatIsWrongWithAFileIsSaidAsEver() throws IOException {
    Path file = folder.resolve("letter.mp3");
    Files.writeString(file, "Dear all, this is no sound. ".repeat(400));
    String plainly = problemOf(file);
    inForce(false);
    assertThat(problemOf(file)).isEqualTo(plainly);
  }

  private String problemOf(Path file) {
    try {
      return "taken: " + freshStore().take(file, MediaKind.MUSIC, Progress.NONE);
    } catch (Problem e) {
      return e.getMessage();
    }
  }

  @Test
  void aDeathIsASentenceAndTheNextFileIsTaken() {
    inForce(true);
    Path harm = tone("dies.flac", 440);
    assertThatThrownBy(() -> store.take(harm, MediaKind.MUSIC, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("dies.flac brings down what decodes it (it ended at once)");
    assertThatThrownBy(() -> store.open(harm, RATE, Progress.NONE)).isInstanceOf(Problem.class);
    assertThatThrownBy(() -> Probe.of(harm)).isInstanceOf(Problem.class);
    assertThat(store.take(tone("good.flac", 300), MediaKind.MUSIC, Progress.NONE).hasSound())
        .isTrue();
  }

  @Test
  void oneThatGoesOnWithoutEndIsEnded() {
    inForce(true);
    assertThatThrownBy(() -> look.admit(identity(tone("hangs.flac", 440)), Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("did not go on for 3 s");
  }

  @Test
  void oneThatTakesTooMuchMemoryIsEnded() {
    inForce(true);
    assertThatThrownBy(() -> look.admit(identity(tone("eats.flac", 440)), Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("took over 150 MB of memory");
  }

  @Test
  void aCancelEndsItAndLeavesNothing() throws IOException {
    inForce(true);
    Path file = tone("hangs.flac", 440);
    long from = System.nanoTime();
    assertThatThrownBy(
            () ->
                look.admit(
                    identity(file),
                    fraction -> {
                      throw new CancellationException();
                    }))
        .isInstanceOf(CancellationException.class);
    assertThat(System.nanoTime() - from).isLessThan(TIGHT.silence().toNanos());
    assertThat(inCache("")).isZero();
  }

  @Test
  void whereNoProcessCanBeStartedFilesAreOpenedWithout() {
    look = new FirstLook(() -> cache, c -> List.of("/nowhere/java"), TIGHT);
    look.takeForce();
    assertThat(store.take(tone("tone.flac", 440), MediaKind.MUSIC, Progress.NONE).hasSound())
        .isTrue();
  }
}

package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.fit.Song;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

/** What is kept of a file is kept of the file as it is now, at the rate that was asked for. */
class FileIdentityTest extends MediaTestCase {

  private Path tone(String name, double hz, int seconds) {
    return new SoundFileMaker("flac", 44_100, "stereo", seconds)
        .write(folder.resolve(name), t -> 0.3 * Math.sin(2 * Math.PI * hz * t));
  }

  /** Writes a file anew under the name of another, as exporting again does. */
  private void replace(Path file, double hz, int seconds) throws IOException {
    Files.move(tone("fresh.flac", hz, seconds), file, StandardCopyOption.REPLACE_EXISTING);
  }

  @Test
  void aFileExportedAgainUnderItsNameIsAnotherFile() throws IOException {
    Path file = tone("song.flac", 400, 3);
    Media media = store.take(file, MediaKind.MUSIC, Progress.NONE);
    assertThat(frequency(read(open(file), RATE, RATE))).isBetween(399, 401);
    assertThat(store.peaks(file).lengthFrames()).isEqualTo(3L * RATE);
    assertThat(store.steps(media).count()).isEqualTo(300);
    SongStore songs = new SongStore(store, new CacheFolder(folder.resolve("cache"), 1L << 30));
    Song song = songs.listen(media, Progress.NONE);
    replace(file, 700, 5);
    assertThat(open(file).lengthFrames()).isEqualTo(5L * RATE);
    assertThat(frequency(read(open(file), RATE, RATE))).isBetween(699, 701);
    assertThat(store.peaks(file).lengthFrames()).isEqualTo(5L * RATE);
    assertThat(store.steps(media).count()).isEqualTo(500);
    assertThat(store.take(file, MediaKind.MUSIC, Progress.NONE).lengthFrames())
        .isEqualTo(5L * RATE);
    assertThat(songs.song(media)).contains(song);
    songs.forget(media.file());
    assertThat(songs.song(media)).isEmpty();
    assertThat(songs.listen(media, Progress.NONE)).isNotSameAs(song);
  }

  @Test
  void eachRateIsItsOwnSound() {
    Path file = tone("song.flac", 400, 3);
    assertThat(store.open(file, 44_100, Progress.NONE).lengthFrames()).isEqualTo(3L * 44_100);
    assertThat(open(file).lengthFrames()).isEqualTo(3L * RATE);
    assertThat(store.open(file, 44_100, Progress.NONE).lengthFrames()).isEqualTo(3L * 44_100);
    assertThat(store.peaks(file).lengthFrames()).isEqualTo(3L * RATE);
  }

  @Test
  void aFileThatIsGoneIsSaidAndOneThatComesBackIsRead() throws IOException {
    Path file = tone("song.flac", 400, 3);
    SampleSource before = open(file);
    Path away = folder.resolve("away.flac");
    Files.move(file, away);
    assertThatThrownBy(() -> open(file)).hasMessageContaining("There is no file");
    Files.move(away, file);
    assertThat(open(file).lengthFrames()).isEqualTo(before.lengthFrames());
  }

  private static void await(CountDownLatch latch) {
    try {
      assertThat(latch.await(30, TimeUnit.SECONDS)).isTrue();
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
  }

  @Test
  void oneLoadsForAllAndWhoeverWaitsCanBeCancelled() throws InterruptedException {
    Loading<String, Integer> loading = new Loading<>(10);
    CountDownLatch begun = new CountDownLatch(1);
    CountDownLatch gate = new CountDownLatch(1);
    AtomicInteger loads = new AtomicInteger();
    Thread first =
        Thread.ofPlatform()
            .start(
                () ->
                    loading.get(
                        "a",
                        Progress.NONE,
                        p -> {
                          begun.countDown();
                          await(gate);
                          return loads.incrementAndGet();
                        }));
    await(begun);
    assertThatThrownBy(
            () ->
                loading.get(
                    "a",
                    fraction -> {
                      throw new CancellationException();
                    },
                    p -> loads.incrementAndGet()))
        .isInstanceOf(CancellationException.class);
    assertThat(loading.get("b", Progress.NONE, p -> 7)).isEqualTo(7);
    gate.countDown();
    assertThat(loading.get("a", Progress.NONE, p -> 99)).isEqualTo(1);
    first.join();
  }

  @Test
  void whoeverWaitsForOneThatIsCancelledLoadsItself() throws InterruptedException {
    Loading<String, Integer> loading = new Loading<>(10);
    CountDownLatch begun = new CountDownLatch(1);
    CountDownLatch gate = new CountDownLatch(1);
    Thread first =
        Thread.ofPlatform()
            .start(
                () -> {
                  try {
                    loading.get(
                        "a",
                        Progress.NONE,
                        p -> {
                          begun.countDown();
                          await(gate);
                          throw new CancellationException();
                        });
                  } catch (CancellationException expected) {
                    assertThat(expected).isNotNull();
                  }
                });
    await(begun);
    List<Integer> found = new java.util.concurrent.CopyOnWriteArrayList<>();
    Thread second =
        Thread.ofPlatform().start(() -> found.add(loading.get("a", Progress.NONE, p -> 5)));
    gate.countDown();
    first.join();
    second.join();
    assertThat(found).containsExactly(5);
  }

  @Test
  void whatFailedIsTriedAgain() {
    Loading<String, Integer> loading = new Loading<>(10);
    assertThatThrownBy(
            () ->
                loading.get(
                    "a",
                    Progress.NONE,
                    p -> {
                      throw new IllegalStateException("once");
                    }))
        .hasMessage("once");
    assertThat(loading.get("a", Progress.NONE, p -> 3)).isEqualTo(3);
  }
}

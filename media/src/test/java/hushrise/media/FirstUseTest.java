package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.sound.TimeStretch;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.RepeatedTest;

/**
 * Threads that all begin to use FFmpeg's libraries at once, each with another part of them, as
 * opening a project does. In a process of its own, as libraries are loaded once in each.
 */
class FirstUseTest {

  private static final Path FILM = Path.of("..", "demo", "data", "first-ferry.mp4");

  @RepeatedTest(3)
  void nobodyWaitsForAnotherForEver() throws IOException, InterruptedException {
    Process process =
        new ProcessBuilder(
                List.of(
                    Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                    "--enable-native-access=ALL-UNNAMED",
                    "-cp",
                    System.getProperty("java.class.path"),
                    FirstUseTest.class.getName(),
                    FILM.toAbsolutePath().toString()))
            .redirectErrorStream(true)
            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
            .start();
    boolean ended = process.waitFor(60, TimeUnit.SECONDS);
    process.destroyForcibly();
    assertThat(ended).as("it ends").isTrue();
    assertThat(process.exitValue()).isZero();
  }

  /** Uses everything at once; its argument is a film. */
  public static void main(String[] args) throws InterruptedException {
    Path film = Path.of(args[0]);
    List<Runnable> uses =
        List.of(
            () -> SoundDecoder.folded(film, 48_000).close(),
            () -> new PictureReader(film, 320, 180).close(),
            () -> Probe.of(film),
            () -> new Scaling().close(),
            FirstUseTest::stretch);
    CyclicBarrier together = new CyclicBarrier(uses.size());
    List<Thread> threads =
        uses.stream().map(use -> Thread.ofPlatform().start(() -> meet(together, use))).toList();
    for (Thread thread : threads) {
      thread.join();
    }
    System.exit(0);
  }

  private static void stretch() {
    try (TimeStretch stretch = new FfmpegStretch(48_000, 1.5)) {
      assertThat(stretch).isNotNull();
    }
  }

  private static void meet(CyclicBarrier together, Runnable use) {
    try {
      together.await();
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
    use.run();
  }
}

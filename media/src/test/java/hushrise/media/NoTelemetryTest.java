package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Looking for speech leaves nothing behind but what it found: no id, no list of what was done. */
class NoTelemetryTest extends MediaTestCase {

  /** Runs in a process of its own: looks for speech in a file. */
  static final class Listening {

    private Listening() {}

    public static void main(String[] args) {
      CacheFolder cache = new CacheFolder(Path.of(args[1]), 1L << 30);
      Path file = Path.of(args[0]);
      try (FirstLook look = FirstLook.inForce(() -> cache)) {
        assertThat(look).isNotNull();
        MediaStore store = new MediaStore(cache);
        new SpeechStore(store, cache)
            .listen(
                file,
                store.open(file, 48_000, hushrise.core.sound.Progress.NONE),
                hushrise.core.sound.Progress.NONE);
      }
    }
  }

  @Test
  void aSpeechSearchWritesNothingIntoTheHomeOfWhoeverRunsIt()
      throws IOException, InterruptedException {
    Path file =
        new SoundFileMaker("flac", 48_000, "mono", 6)
            .write(folder.resolve("hum.flac"), t -> 0.2 * Math.sin(2 * Math.PI * 180 * t));
    Path home = Files.createDirectory(folder.resolve("home"));
    Path cache = folder.resolve("found");
    ProcessBuilder builder =
        new ProcessBuilder(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--enable-native-access=ALL-UNNAMED",
                "--sun-misc-unsafe-memory-access=allow",
                "-cp",
                System.getProperty("java.class.path"),
                Listening.class.getName(),
                file.toString(),
                cache.toString()));
    builder.environment().remove("ORT_DISABLE_TELEMETRY");
    builder.environment().put("HOME", home.toString());
    builder.environment().put("JAVA_TOOL_OPTIONS", "-Duser.home=" + home); // its children's, too
    builder.environment().put("XDG_CACHE_HOME", home.resolve(".cache").toString());
    builder.environment().put("XDG_CONFIG_HOME", home.resolve(".config").toString());
    builder.environment().put("XDG_DATA_HOME", home.resolve(".data").toString());
    builder.redirectErrorStream(true).redirectOutput(folder.resolve("log").toFile());
    Process process = builder.start();
    assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
    assertThat(process.exitValue()).as(Files.readString(folder.resolve("log"))).isZero();
    try (Stream<Path> found = Files.list(cache)) {
      assertThat(found.map(p -> p.getFileName().toString()).filter(n -> n.endsWith(".speech")))
          .hasSize(1);
    }
    Path own = home.resolve(".cache").resolve("hushrise");
    try (Stream<Path> all = Files.walk(home)) {
      assertThat(all.filter(Files::isRegularFile).filter(p -> !p.startsWith(own))).isEmpty();
    }
  }
}

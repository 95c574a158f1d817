package hushrise.cli;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.media.Probe;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;

/** Exports that are killed, or whose disk is full, at any moment: the program runs by itself. */
class FaultsTest extends CommandLineTestCase {

  /** How often each; more with {@code -Dkills=200}. */
  private static final int FAULTS = Integer.getInteger("kills", 5);

  private static final String OLD = "what lay there before";

  private Path project;
  private Path film;
  private Path out;

  @BeforeEach
  void aProject() throws IOException {
    out = Files.createDirectory(folder.resolve("out"));
    project = folder.resolve("film.hushrise");
    film = out.resolve("film.mp4");
    Answer made = call(make("first.wav", "--save", project.toString()));
    assertThat(made.code()).as(made.err()).isZero();
  }

  @Test
  void aKilledExportLeavesTheOldFileOrAllOfTheNew() throws Exception {
    Files.writeString(film, OLD);
    long begun = System.nanoTime();
    Process whole = start("render", project.toString(), "--to", film.toString());
    assertThat(whole.waitFor()).isZero();
    int millis = (int) ((System.nanoTime() - begun) / 1_000_000);
    double seconds = Probe.of(film).seconds();
    Random random = new Random(5);
    for (int kill = 0; kill < FAULTS; kill++) {
      Files.writeString(film, OLD);
      Process export = start("render", project.toString(), "--to", film.toString());
      export.waitFor(random.nextInt(millis), TimeUnit.MILLISECONDS);
      export.destroyForcibly().waitFor();
      if (!isOld()) {
        assertThat(Probe.of(film).seconds()).as("kill %d", kill).isCloseTo(seconds, SECOND_PART);
      }
    }
    Process again = start("render", project.toString(), "--to", film.toString());
    assertThat(again.waitFor()).isZero();
    assertThat(names(out)).as("no part file is left").containsExactly("film.mp4");
  }

  private static final Offset<Double> SECOND_PART = Offset.offset(0.05);

  /** No file may grow beyond a size, wherever that is reached: to a writer a disk that is full. */
  @Test
  @EnabledOnOs({OS.LINUX, OS.MAC})
  void aFullDiskIsASentenceAndTheOldFileStays() throws Exception {
    Random random = new Random(6);
    int refused = 0;
    for (int fault = 0; fault < FAULTS; fault++) {
      Files.writeString(film, OLD);
      Path saved = out.resolve("saved-" + fault + ".hushrise");
      List<String> limited =
          List.of("sh", "-c", "ulimit -f " + (1 << random.nextInt(15)) + " && exec \"$@\"", "sh");
      Process export =
          startAfter(
              limited, make("out/film.mp4", "--save", saved.toString(), "--loudness", "-16"));
      String said = new String(export.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      int code = export.waitFor();
      assertThat(code).as(said).isIn(0, 1);
      assertThat(said).doesNotContain("\tat ").doesNotContain("Exception");
      if (code == 1) {
        refused++;
        assertThat(isOld()).as("the old film stays: %s", said).isTrue();
        assertThat(said.strip()).endsWith(".");
        Files.deleteIfExists(saved);
      }
      assertThat(names(out)).as(said).allMatch(n -> !n.endsWith(".part"));
    }
    assertThat(refused).as("the disk was full at all").isPositive();
  }

  private boolean isOld() throws IOException {
    return Files.size(film) == OLD.length() && Files.readString(film).equals(OLD);
  }

  private static List<String> names(Path folder) throws IOException {
    try (Stream<Path> all = Files.list(folder)) {
      return all.map(p -> p.getFileName().toString()).sorted().toList();
    }
  }
}

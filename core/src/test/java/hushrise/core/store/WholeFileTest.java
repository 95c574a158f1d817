package hushrise.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import hushrise.core.Problem;
import hushrise.core.exchange.OtioReader;
import hushrise.core.exchange.Timelines;
import hushrise.core.sound.Progress;
import hushrise.core.speech.Captions;
import hushrise.core.time.Span;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Projects, captions and timelines that strangers sent: whatever lies there ends soon. */
class WholeFileTest {

  private static final int RATE = 48_000;
  private static final Path ENDLESS = Path.of("/dev/zero");

  @TempDir private Path folder;
  private Path file;

  @BeforeEach
  void aName() {
    file = folder.resolve("sent");
  }

  private void refusedByAll(Path sent, String words) {
    assertThatThrownBy(() -> ProjectFile.load(sent)).as("project").satisfies(e -> is(e, words));
    assertThatThrownBy(() -> Captions.read(sent, RATE)).as("captions").satisfies(e -> is(e, words));
    assertThatThrownBy(() -> OtioReader.read(sent, Timelines.NOTHING, Progress.NONE))
        .as("timeline")
        .satisfies(e -> is(e, words));
  }

  private static void is(Throwable problem, String words) {
    assertThat(problem).isInstanceOf(Problem.class).hasMessageContaining(words);
  }

  @Test
  void whatIsMissingOrAFolderIsSaidInWords() {
    refusedByAll(file, "check its name and folder");
    refusedByAll(folder, "no ordinary file");
  }

  @Test
  void aFileWithoutEndIsNotRead() {
    assumeTrue(Files.exists(ENDLESS));
    refusedByAll(ENDLESS, "no ordinary file");
  }

  @Test
  void aFileOfASizeThatNoneHasIsNotTakenIn() throws IOException {
    try (RandomAccessFile sparse = new RandomAccessFile(file.toFile(), "rw")) {
      sparse.setLength(300L << 20);
    }
    refusedByAll(file, "MB large");
  }

  @Test
  void captionsHaveToBeTextInUtf8() throws IOException {
    byte[] latin =
        "WEBVTT\n\n00:01.000 --> 00:02.000\nM\u00f6we\n".getBytes(StandardCharsets.ISO_8859_1);
    Files.write(file, latin);
    assertThatThrownBy(() -> Captions.read(file, RATE)).satisfies(e -> is(e, "UTF-8"));
    Files.writeString(file, "WEBVTT\n\n00:01.000 --> 00:02.000\nM\u00f6we\n");
    assertThat(Captions.read(file, RATE)).containsExactly(new Span(RATE, 2L * RATE));
  }
}

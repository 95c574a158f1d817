package hushrise.core.speech;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Captions from wherever they come. */
class CaptionsTest {

  private static final int RATE = 48_000;
  private static final String SUBRIP =
      "1\r\n00:00:01,500 --> 00:00:04,000\r\nDie F\u00e4hre <i>legt an</i>.\r\n\r\n"
          + "2\r\n0:01:02.000 --> 0:01:03,250  X1:40 X2:600\r\nZweite Zeile\r\n";
  private static final List<Span> COVERED =
      List.of(new Span(RATE * 3 / 2, RATE * 4L), new Span(RATE * 62L, RATE * 253L / 4));

  @TempDir private Path folder;

  private Path written(String name, String text, Charset charset) throws IOException {
    return Files.writeString(folder.resolve(name), text, charset);
  }

  @Test
  void subRipIsReadWhateverItsWordsAreWrittenIn() throws IOException {
    for (Charset charset :
        List.of(StandardCharsets.UTF_8, StandardCharsets.ISO_8859_1, StandardCharsets.UTF_16)) {
      Path file = written("film." + charset + ".SRT", SUBRIP, charset);
      assertThat(Captions.read(file, RATE)).as("%s", charset).isEqualTo(COVERED);
    }
    Path marked = written("marked.srt", "\uFEFF" + SUBRIP, StandardCharsets.UTF_8);
    assertThat(Captions.read(marked, RATE)).isEqualTo(COVERED);
  }

  @Test
  void webVttIsReadByItsOwnRules() throws IOException {
    Path file =
        written("film.vtt", "WEBVTT\n\n00:01.500 --> 00:04.000\nwords\n", StandardCharsets.UTF_8);
    assertThat(Captions.read(file, RATE)).containsExactly(COVERED.getFirst());
    assertThatThrownBy(() -> Captions.read(written("a.vtt", SUBRIP, StandardCharsets.UTF_8), RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("begin with WEBVTT");
  }

  @Test
  void whatIsWrongIsSaidWithItsLine() throws IOException {
    Path backwards = written("b.srt", "1\n00:00:04,000 --> 00:00:01,000\n", StandardCharsets.UTF_8);
    Path endless =
        written("c.srt", "1\n99999999999999999999:00:04,000 --> 1\n", StandardCharsets.UTF_8);
    Path none = written("d.srt", "words only", StandardCharsets.UTF_8);
    assertProblem(backwards, "In line 2 of");
    assertProblem(endless, "Line 2 of");
    assertProblem(none, "holds no captions");
    Path hours =
        written(
            "e.vtt",
            "WEBVTT\n\n99999999999999999999:00:04.000 --> 99999999999999999999:00:05.000\n",
            StandardCharsets.UTF_8);
    assertProblem(hours, "Line 3 of");
  }

  private static void assertProblem(Path file, String words) {
    assertThatThrownBy(() -> Captions.read(file, RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(words)
        .hasMessageContaining(file.toString());
  }
}

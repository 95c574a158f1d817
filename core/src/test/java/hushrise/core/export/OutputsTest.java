package hushrise.core.export;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever names lead to a file, it is not written over while it is needed. */
class OutputsTest {

  @TempDir private Path folder;
  private Path voice;

  @BeforeEach
  void write() throws IOException {
    voice = Files.writeString(folder.resolve("voice.wav"), "the only take");
  }

  private void refused(Path input, Path output) {
    assertThatThrownBy(() -> Outputs.requireApart(List.of(input), List.of(output)))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("would be lost");
  }

  @Test
  void anInputIsRefusedUnderEveryNameItHas() throws IOException {
    Path link = Files.createSymbolicLink(folder.resolve("link.wav"), voice);
    Path hard = Files.createLink(folder.resolve("hard.wav"), voice);
    Path inner = Files.createDirectory(folder.resolve("inner"));
    Path around = Files.createSymbolicLink(folder.resolve("around"), folder);
    refused(voice, voice);
    refused(link, voice);
    refused(voice, link);
    refused(voice, hard);
    refused(voice, inner.resolve("../voice.wav"));
    refused(around.resolve("voice.wav"), voice);
  }

  @Test
  void outputsMayNotBeOneAnotherEvenBeforeTheyExist() throws IOException {
    Path around = Files.createSymbolicLink(folder.resolve("around"), folder);
    assertThatThrownBy(
            () ->
                Outputs.requireApart(
                    List.of(voice),
                    List.of(folder.resolve("music.wav"), around.resolve("music.wav"))))
        .hasMessageContaining("written twice");
  }

  @Test
  void filesThatAreApartAreFine() {
    assertThatCode(
            () ->
                Outputs.requireApart(
                    List.of(voice), List.of(folder.resolve("a.wav"), folder.resolve("b.wav"))))
        .doesNotThrowAnyException();
  }
}

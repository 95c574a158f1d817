package hushrise.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PortableNameTest {

  @ParameterizedTest
  @ValueSource(
      strings = {"song.mp3", "Přístav 2 — večer.flac", "海の歌.wav", "v1.2 (final).ogg", ".x"})
  void whatAnySystemTakesStays(String name) {
    assertThat(PortableName.of(name)).isEqualTo(name);
  }

  @ParameterizedTest
  @CsvSource({
    "Scene 1: why?.wav, Scene 1- why-.wav",
    "Part 1/2, Part 1-2",
    "The end. . ., The end",
    "sea .wav, sea.wav",
    "con.wav, _con.wav",
    "LPT1, _LPT1",
    "console.wav, console.wav",
    "'...', _"
  })
  void whatSomeSystemDoesNotTakeIsReplaced(String name, String portable) {
    assertThat(PortableName.of(name)).isEqualTo(portable);
    assertThat(PortableName.of("two\nlines\tlong.wav")).isEqualTo("two-lines-long.wav");
    assertThat(PortableName.of("caf\u0065\u0301.wav")).isEqualTo("caf\u00e9.wav");
  }

  @Test
  void aLongNameKeepsItsEndingAndItsLettersWhole() {
    String name = PortableName.of("\ud83d\udea2".repeat(80) + ".flac");
    assertThat(name).isEqualTo("\ud83d\udea2".repeat(50) + ".flac");
    assertThat(PortableName.of("x".repeat(300))).isEqualTo("x".repeat(200));
  }

  @Test
  void twoThatWouldBeOneFileAreToldApart() {
    Set<String> used = new HashSet<>();
    assertThat(PortableName.unique("Song?.wav", used)).isEqualTo("Song-.wav");
    assertThat(PortableName.unique("song*.wav", used)).isEqualTo("song--2.wav");
    assertThat(PortableName.unique("SONG-.WAV", used)).isEqualTo("SONG--3.WAV");
  }

  @Test
  void whateverANameIsMadeOfItBecomesOne() {
    String letters = "ab.: /\\\u0301e\n\t\"|?*<>\ud83d\udea2 \u00a0-_conul1";
    Random random = new Random(5);
    for (int i = 0; i < 5_000; i++) {
      StringBuilder name = new StringBuilder();
      random
          .ints(random.nextInt(120), 0, letters.length())
          .forEach(at -> name.append(letters.charAt(at)));
      String portable = PortableName.of(name.toString());
      assertThat(portable)
          .isNotBlank()
          .doesNotContainPattern("[<>:\"/\\\\|?*\\p{Cntrl}]")
          .doesNotMatch("(?s).*[. ]")
          .doesNotMatch("(?is)(con|prn|aux|nul)(\\..*)?");
      assertThat(portable.getBytes(StandardCharsets.UTF_8)).hasSizeLessThan(255);
      assertThat(PortableName.of(portable)).isEqualTo(portable);
    }
  }
}

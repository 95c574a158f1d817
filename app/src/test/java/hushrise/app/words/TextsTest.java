package hushrise.app.words;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Numbers as they are shown. */
class TextsTest {

  @ParameterizedTest
  @CsvSource({
    "%.1f dB, -6.04, \u22126.0 dB",
    "%.1f LU, -0.04, 0.0 LU",
    "%.1f, 0.06, 0.1",
    "%+.1f, 3, +3.0",
    "%+.1f, -12.34, \u221212.3",
    "%.0f, -0.4, 0"
  })
  void aFigureHasATrueMinusSignAndNoneBeforeANought(String pattern, double value, String shown) {
    assertThat(Texts.figure(pattern, value)).isEqualTo(shown);
  }

  @Test
  void soDoesANumberInASentence() {
    assertThat(Texts.text("ear.hush.alone", -9.25))
        .isEqualTo("A hush of \u22129.2 dB where nobody speaks.");
    assertThat(Texts.text("ear.music.abrupt")).doesNotContain("{");
  }
}

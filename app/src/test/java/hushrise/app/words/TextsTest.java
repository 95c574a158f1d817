package hushrise.app.words;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Numbers and names as they are shown. */
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

  /** Words that stand for several things, right after the count of them. */
  @Test
  void oneThingIsNeverCalledSeveral() {
    Pattern several =
        Pattern.compile(
            "\\b1 (files|clips|seams|hushes|passages|samples|keyframes|rises|places|steps|times)\\b");
    List<String> counted =
        Texts.keys()
            .filter(k -> Texts.text(k).contains("{0}") || Texts.text(k).contains("{1}"))
            .toList();
    assertThat(counted).hasSizeGreaterThan(100);
    // chosen, copied or read are several whenever these are said
    List<String> ofSeveral =
        List.of(
            "taking.many",
            "edit.addMany",
            "detail.clipsChosen",
            "detail.keyframesChosen",
            "speed.is");
    assertThat(counted)
        .filteredOn(k -> !ofSeveral.contains(k) && several.matcher(ofOnes(k)).find())
        .isEmpty();
  }

  private static String ofOnes(String key) {
    try {
      return Texts.text(key, 1, 1, 1, 1, 1);
    } catch (IllegalArgumentException e) {
      return ""; // a part of it is no number
    }
  }

  @Test
  void otherNamesAreThoseOfCommands() {
    List<String> commands = Arrays.stream(CommandId.values()).map(CommandId::key).toList();
    assertThat(Texts.keys().filter(k -> k.startsWith("also.")).map(k -> k.substring(5)))
        .hasSizeGreaterThan(20)
        .allSatisfy(key -> assertThat(commands).contains(key));
  }

  /** Sentences say "Record, Learn a fader" of a command: it is in that menu by those words. */
  @Test
  void whatASentenceSendsToIsThere() {
    int sent = 0;
    for (String key : Texts.keys().toList()) {
      String sentence = Texts.text(key);
      assertThat(sentence).as(key).doesNotContain(" menu");
      for (CommandId.Menu menu : EnumSet.complementOf(EnumSet.of(CommandId.Menu.NONE))) {
        Matcher ways = Pattern.compile("\\b" + menu.words() + ", (?=\\p{Lu})").matcher(sentence);
        while (ways.find()) {
          String rest = sentence.substring(ways.end());
          assertThat(CommandId.values())
              .as(sentence)
              .anyMatch(id -> id.menu() == menu && rest.startsWith(plain(id)));
          sent++;
        }
      }
    }
    assertThat(sent).isGreaterThanOrEqualTo(5);
  }

  private static String plain(CommandId id) {
    return id.words().replace(" \u2026", "");
  }
}

package hushrise.core.speech;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.time.Span;
import java.util.List;
import org.junit.jupiter.api.Test;

class WebVttTest {

  private static final int RATE = 48_000;

  @Test
  void whatIsWrittenIsReadToTheMillisecond() {
    List<Span> spans = List.of(new Span(48, 96_000), new Span(3_600L * RATE, 3_601L * RATE + 480));
    String text = WebVtt.write(spans, RATE);
    assertThat(text).startsWith("WEBVTT\n").contains("01:00:00.000 --> 01:00:01.010");
    assertThat(WebVtt.read(text, "a.vtt", RATE)).isEqualTo(spans);
  }

  @Test
  void hoursMayBeLeftOutAndSettingsAndWordsAreSkipped() {
    String text =
        "\uFEFFWEBVTT - takes\n\nNOTE hello\n\n01:02.500 --> 01:04.000 align:start\nwords\n";
    assertThat(WebVtt.read(text, "a.vtt", RATE))
        .containsExactly(new Span(Math.round(62.5 * RATE), 64L * RATE));
  }

  @Test
  void whatIsNoWebVttIsSaidInWords() {
    assertProblem("1\n00:01 --> 00:02\n", "begin with WEBVTT");
    assertProblem("WEBVTT\n\n00:00:02.000 --> 00:00:01.000\n", "ends before it begins");
    assertProblem("WEBVTT\n\n00:00:02,000 --> 00:00:03,000\n", "Line 3 of a.vtt");
  }

  private static void assertProblem(String text, String words) {
    assertThatThrownBy(() -> WebVtt.read(text, "a.vtt", RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("a.vtt")
        .hasMessageContaining(words);
  }
}

package hushrise.core.speech;

import hushrise.core.Problem;
import hushrise.core.time.Span;
import java.util.List;
import java.util.regex.Pattern;

/** Stretches of speech as WebVTT (W3C): read from cues, written as cues without words. */
public final class WebVtt {

  private static final Pattern TIMING =
      Pattern.compile(
          "(?:(\\d{2,4}):)?(\\d{2}):(\\d{2})\\.(\\d{3})\\s+-->\\s+(?:(\\d{2,4}):)?(\\d{2}):(\\d{2})\\.(\\d{3})(\\s.*)?");

  private WebVtt() {}

  /** One cue for each stretch. */
  public static String write(List<Span> spans, int sampleRate) {
    StringBuilder text = new StringBuilder("WEBVTT\n");
    int number = 1;
    for (Span span : spans) {
      text.append(
          "\n%d\n%s --> %s\n%s\n"
              .formatted(
                  number,
                  time(span.startFrame(), sampleRate),
                  time(span.endFrame(), sampleRate),
                  "passage " + number));
      number++;
    }
    return text.toString();
  }

  /** A time as WebVTT writes it. */
  public static String time(long frame, int sampleRate) {
    long millis = Math.round(frame * 1000.0 / sampleRate);
    return "%02d:%02d:%02d.%03d"
        .formatted(millis / 3_600_000, millis / 60_000 % 60, millis / 1000 % 60, millis % 1000);
  }

  /**
   * The stretches that a text's cues cover, in its order.
   *
   * @param name what a person knows the file as
   * @throws Problem when it is no WebVTT, or a cue ends before it begins
   */
  public static List<Span> read(String text, String name, int sampleRate) {
    List<String> lines = text.replace("\uFEFF", "").lines().toList();
    if (lines.isEmpty() || !lines.getFirst().startsWith("WEBVTT")) {
      throw new Problem("%s is no WebVTT file: it has to begin with WEBVTT.".formatted(name));
    }
    return Captions.cues(
        lines, TIMING, "WebVTT knows, such as 00:01:02.500 --> 00:01:04.000", name, sampleRate);
  }
}

package hushrise.core.speech;

import hushrise.core.Problem;
import hushrise.core.store.WholeFile;
import hushrise.core.time.Span;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Stretches of speech as WebVTT (W3C): read from cues, written as cues without words. */
public final class WebVtt {

  private static final int MOST_BYTES = 64 << 20;

  private static final Pattern TIMING =
      Pattern.compile(
          "(?:(\\d{2,}):)?(\\d{2}):(\\d{2})\\.(\\d{3})\\s+-->\\s+(?:(\\d{2,}):)?(\\d{2}):(\\d{2})\\.(\\d{3})(\\s.*)?");

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
   * The stretches that a file's cues cover, in its order.
   *
   * @throws Problem when it cannot be read, is no text in UTF-8 or no WebVTT, or a cue ends before
   *     it begins
   */
  public static List<Span> read(Path file, int sampleRate) {
    byte[] bytes = WholeFile.bytes(file, "file", MOST_BYTES);
    try {
      String text = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
      return read(text, String.valueOf(file), sampleRate);
    } catch (CharacterCodingException e) {
      throw new Problem(
          "The file %s is no text in UTF-8: save it again as WebVTT.".formatted(file), e);
    }
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
    List<Span> spans = new ArrayList<>();
    for (int i = 0; i < lines.size(); i++) {
      Matcher matcher = TIMING.matcher(lines.get(i).strip());
      if (matcher.matches()) {
        long from = frame(matcher, 1, sampleRate);
        long to = frame(matcher, 5, sampleRate);
        if (to <= from) {
          throw new Problem(
              "In line %d of %s a cue ends before it begins: mend it, or leave it out."
                  .formatted(i + 1, name));
        }
        spans.add(new Span(from, to));
      } else if (lines.get(i).contains("-->")) {
        throw new Problem(
            "Line %d of %s is no time that WebVTT knows, such as 00:01:02.500 --> 00:01:04.000."
                .formatted(i + 1, name));
      }
    }
    return List.copyOf(spans);
  }

  private static long frame(Matcher m, int first, int sampleRate) {
    long hours = m.group(first) == null ? 0 : Long.parseLong(m.group(first));
    long millis =
        ((hours * 60 + Long.parseLong(m.group(first + 1))) * 60
                    + Long.parseLong(m.group(first + 2)))
                * 1000
            + Long.parseLong(m.group(first + 3));
    return Math.round(millis * (double) sampleRate / 1000);
  }
}

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
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Stretches of speech from captions that somebody has: WebVTT, or SubRip where the name says so.
 */
public final class Captions {

  private static final int MOST_BYTES = 64 << 20;

  private Captions() {}

  /**
   * The stretches that a file's cues cover, in its order.
   *
   * @throws Problem when it cannot be read, is neither form, or a cue ends before it begins
   */
  public static List<Span> read(Path file, int sampleRate) {
    byte[] bytes = WholeFile.bytes(file, "file", MOST_BYTES);
    String name = String.valueOf(file);
    if (name.toLowerCase(Locale.ROOT).endsWith(SubRip.ENDING)) {
      return SubRip.read(SubRip.text(bytes), name, sampleRate);
    }
    try {
      String text = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
      return WebVtt.read(text, name, sampleRate);
    } catch (CharacterCodingException e) {
      throw new Problem(
          "The file %s is no text in UTF-8: save it again as WebVTT.".formatted(file), e);
    }
  }

  /**
   * What the lines with times cover; all others are passed over.
   *
   * @param timing finds hours, minutes, seconds and thousandths of the begin, and again of the end
   * @param known what such a line is, as the rest of "is no time that"
   * @throws Problem when a line with an arrow is none, or a cue ends before it begins
   */
  static List<Span> cues(
      List<String> lines, Pattern timing, String known, String name, int sampleRate) {
    List<Span> spans = new ArrayList<>();
    for (int i = 0; i < lines.size(); i++) {
      Matcher matcher = timing.matcher(lines.get(i).strip());
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
        throw new Problem("Line %d of %s is no time that %s.".formatted(i + 1, name, known));
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

package hushrise.core.speech;

import hushrise.core.Problem;
import hushrise.core.time.Span;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Pattern;

/** Stretches of speech from captions in the form of SubRip, which nobody has written down. */
final class SubRip {

  static final String ENDING = ".srt";

  /** Thousandths follow a comma, rarely a point; where the words stand may follow the times. */
  private static final Pattern TIMING =
      Pattern.compile(
          "(\\d{1,4}):(\\d{1,2}):(\\d{1,2})[,.](\\d{3})\\s*-->\\s*(\\d{1,4}):(\\d{1,2}):(\\d{1,2})[,.](\\d{3})(\\s.*)?");

  private SubRip() {}

  /** Its text, of which only digits matter: it comes in all encodings. */
  static String text(byte[] bytes) {
    boolean two = bytes.length > 1 && (bytes[0] & 0xFF) + (bytes[1] & 0xFF) == 0xFE + 0xFF;
    Charset charset = two ? StandardCharsets.UTF_16 : StandardCharsets.ISO_8859_1;
    return new String(bytes, charset);
  }

  /**
   * The stretches that a text's cues cover, in its order.
   *
   * @param name what a person knows the file as
   * @throws Problem when it has no cue, or one that ends before it begins
   */
  static List<Span> read(String text, String name, int sampleRate) {
    List<Span> spans =
        Captions.cues(
            text.lines().toList(),
            TIMING,
            "SubRip captions have, such as 00:01:02,500 --> 00:01:04,000",
            name,
            sampleRate);
    if (spans.isEmpty()) {
      throw new Problem("%s holds no captions: choose another file.".formatted(name));
    }
    return spans;
  }
}

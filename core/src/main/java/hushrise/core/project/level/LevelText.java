package hushrise.core.project.level;

import hushrise.core.Decibels;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Levels as a person reads and types them: dB, percent of amplitude, or off. */
public final class LevelText {

  private static final Pattern NUMBER =
      Pattern.compile("([+\\-\u2212]?\\s*(?:\\d{1,4}(?:[.,]\\d*)?|[.,]\\d+))\\s*(db|%)?");

  private LevelText() {}

  /** A level such as {@code -9.5 dB}, {@code 0.0 dB} or {@code off}. */
  public static String format(double db) {
    if (db <= Decibels.OFF_DB) {
      return "off";
    }
    double shown = Math.round(db * 10) / 10.0;
    return String.format(Locale.ROOT, shown > 0 ? "+%.1f dB" : "%.1f dB", shown == 0 ? 0.0 : shown)
        .replace('-', '\u2212');
  }

  /**
   * The level of a typed text: {@code -9.5}, {@code -9,5 dB}, {@code 50 %} or {@code off}. Levels
   * at or under -60 dB are off. Empty when the text is no level.
   */
  public static OptionalDouble parse(String text) {
    String typed = text.strip().toLowerCase(Locale.ROOT);
    if (typed.equals("off")) {
      return OptionalDouble.of(Decibels.OFF_DB);
    }
    Matcher matcher = NUMBER.matcher(typed);
    if (!matcher.matches()) {
      return OptionalDouble.empty();
    }
    double value =
        Double.parseDouble(
            matcher.group(1).replace('\u2212', '-').replace(',', '.').replaceAll("\\s", ""));
    boolean percent = "%".equals(matcher.group(2));
    if (percent && value < 0) {
      return OptionalDouble.empty();
    }
    double db = percent ? Decibels.ofFactor(value / 100) : value;
    return OptionalDouble.of(Math.max(db, Decibels.OFF_DB));
  }

  /**
   * The change of a typed text such as {@code by -3} or {@code by +1.5 dB}; empty when it is none.
   */
  public static OptionalDouble parseRelative(String text) {
    String typed = text.strip().toLowerCase(Locale.ROOT);
    if (!typed.startsWith("by") || typed.endsWith("%")) {
      return OptionalDouble.empty();
    }
    Matcher matcher = NUMBER.matcher(typed.substring(2).strip());
    return matcher.matches()
        ? OptionalDouble.of(
            Double.parseDouble(
                matcher.group(1).replace('\u2212', '-').replace(',', '.').replaceAll("\\s", "")))
        : OptionalDouble.empty();
  }
}

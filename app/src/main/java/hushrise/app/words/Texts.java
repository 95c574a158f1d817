package hushrise.app.words;

import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.text.Format;
import java.text.MessageFormat;
import java.util.List;
import java.util.Locale;
import java.util.ResourceBundle;
import java.util.stream.Stream;

/** The window's texts, from {@code texts.properties}. */
public final class Texts {

  private static final ResourceBundle BUNDLE =
      ResourceBundle.getBundle("hushrise.app.texts", Locale.ROOT);

  private static final int MOST_NAMES = 4;

  private Texts() {}

  /** Whether there is a text of a key. */
  public static boolean has(String key) {
    return BUNDLE.containsKey(key);
  }

  /** The keys of all texts. */
  static Stream<String> keys() {
    return BUNDLE.keySet().stream();
  }

  /** The text of a key. */
  public static String text(String key) {
    return BUNDLE.getString(key);
  }

  /**
   * A number as it is shown: with a true minus sign, and none before a nought.
   *
   * @param pattern such as {@code %.1f LU}
   */
  public static String figure(String pattern, double value) {
    String shown = String.format(Locale.ROOT, pattern, value);
    boolean nought = shown.chars().noneMatch(c -> '1' <= c && c <= '9');
    return shown.replace("-", nought ? "" : "\u2212");
  }

  /** Names in a row; of more than four the first three, and how many more there are. */
  public static String names(List<String> names) {
    return names.size() <= MOST_NAMES
        ? String.join(", ", names)
        : text(
            "names.more",
            String.join(", ", names.subList(0, MOST_NAMES - 1)),
            names.size() - MOST_NAMES + 1);
  }

  /** The text of a key with its places {0}, {1} ... filled in; numbers have a true minus sign. */
  public static String text(String key, Object... values) {
    MessageFormat format = new MessageFormat(BUNDLE.getString(key), Locale.ROOT);
    for (Format place : format.getFormats()) {
      if (place instanceof DecimalFormat number) {
        DecimalFormatSymbols symbols = number.getDecimalFormatSymbols();
        symbols.setMinusSign('\u2212');
        number.setDecimalFormatSymbols(symbols);
      }
    }
    return format.format(values);
  }
}

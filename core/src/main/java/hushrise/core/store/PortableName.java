package hushrise.core.store;

import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Names of files that any system takes, so that what is written on one can be copied to another.
 */
public final class PortableName {

  /** File systems take 255 bytes; what is put before and behind a name needs room too. */
  private static final int MOST_BYTES = 200;

  /** Where a longer ending begins it is none, but a dot within the name. */
  private static final int MOST_ENDING = 12;

  /** What some system takes in no name. */
  private static final Pattern NOWHERE = Pattern.compile("[<>:\"/\\\\|?*\\p{Cntrl}]");

  /** What Windows takes for a device, with any ending. */
  private static final Pattern DEVICE =
      Pattern.compile("(?is)(con|prn|aux|nul|com[0-9]|lpt[0-9])(\\..*)?");

  private PortableName() {}

  /**
   * A name that is as near to another as can be: a hyphen for each character that some system does
   * not take, and no longer than 200 bytes.
   */
  public static String of(String name) {
    String composed = Normalizer.normalize(name, Normalizer.Form.NFC);
    String clean = withoutEnd(NOWHERE.matcher(composed).replaceAll("-").strip());
    int dot = clean.lastIndexOf('.');
    int end = dot > 0 && clean.length() - dot <= MOST_ENDING ? dot : clean.length();
    String whole = withoutEnd(shortened(clean.substring(0, end))) + clean.substring(end);
    return whole.isEmpty() || DEVICE.matcher(whole).matches() ? "_" + whole : whole;
  }

  /**
   * As above, and another than names that were given before: with a number where it is taken.
   *
   * @param used what is taken, in small letters, as not every system tells them from large ones;
   *     the name is added
   */
  static String unique(String name, Set<String> used) {
    String whole = of(name);
    int dot = whole.lastIndexOf('.');
    String bare = dot > 0 ? whole.substring(0, dot) : whole;
    String ending = dot > 0 ? whole.substring(dot) : "";
    String unique = whole;
    for (int n = 2; !used.add(unique.toLowerCase(Locale.ROOT)); n++) {
      unique = bare + "-" + n + ending;
    }
    return unique;
  }

  /** Windows drops dots and spaces at the end of a name. */
  private static String withoutEnd(String name) {
    int end = name.length();
    while (end > 0 && (name.charAt(end - 1) == '.' || name.charAt(end - 1) == ' ')) {
      end--;
    }
    return name.substring(0, end);
  }

  private static String shortened(String name) {
    String start = name;
    while (start.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) {
      start = start.substring(0, start.offsetByCodePoints(start.length(), -1));
    }
    return start;
  }
}

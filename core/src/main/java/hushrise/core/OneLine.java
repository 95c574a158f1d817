package hushrise.core;

import java.util.regex.Pattern;

/** Names and the like from files of others, which may hold anything, as one line. */
public final class OneLine {

  private static final Pattern BREAKS = Pattern.compile("[\\s\\p{Cc}\\p{Zl}\\p{Zp}]+");

  private OneLine() {}

  /** A text with one space for each stretch of line breaks, tabs, spaces and controls. */
  public static String of(String text) {
    return BREAKS.matcher(text).replaceAll(" ").strip();
  }

  /** As above, and no longer than so many letters. */
  public static String of(String text, int most) {
    String line = of(text);
    return line.codePointCount(0, line.length()) <= most
        ? line
        : line.substring(0, line.offsetByCodePoints(0, most));
  }
}

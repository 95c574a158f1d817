package hushrise.app.words;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.Locale;

/** Points in time, as a person's own calendar and clock tell them. */
public final class Times {

  private static final DateTimeFormatter SAID =
      DateTimeFormatter.ofLocalizedDateTime(FormatStyle.MEDIUM, FormatStyle.SHORT);

  private Times() {}

  public static String said(Instant time) {
    return SAID.withLocale(Locale.getDefault(Locale.Category.DISPLAY))
        .withZone(ZoneId.systemDefault())
        .format(time);
  }
}

package hushrise.core.time;

import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Times as a person reads and types them: {@code HH:MM:SS:FF} timecode at a picture's rate, or
 * seconds with decimals.
 *
 * <p>Drop-frame counting after SMPTE ST 12-1: at 30000/1001 the numbers 00 and 01 (at 60000/1001
 * also 02 and 03) are left out at the start of every minute but each tenth, and the last separator
 * is a semicolon.
 */
public final class Timecode {

  private static final Pattern CLOCK =
      Pattern.compile("(?:(?:(\\d{1,3}):)?(\\d{1,3}):)?(\\d{1,5}):(\\d{1,3})");
  private static final Pattern SECONDS =
      Pattern.compile("(\\d{1,7}(?:\\.\\d{0,9})?|\\.\\d{1,9})\\s*s?");

  private Timecode() {}

  /** The timecode of the picture frame shown at a sample frame of at least 0. */
  public static String format(long sampleFrame, FrameRate ofPicture, int sampleRate) {
    FrameRate rate = counted(ofPicture);
    long count = numberAt(sampleFrame, rate, sampleRate);
    int nominal = rate.nominal();
    long seconds = count / nominal;
    return "%02d:%02d:%02d%s%02d"
        .formatted(
            seconds / 3600,
            seconds / 60 % 60,
            seconds % 60,
            rate.dropsNumbers() ? ";" : ":",
            count % nominal);
  }

  /** Which number, counted from 0, timecode gives to the picture frame shown at a sample frame. */
  static long numberAt(long sampleFrame, FrameRate ofPicture, int sampleRate) {
    FrameRate rate = counted(ofPicture);
    return numberOf(rate.pictureFrameAt(Math.max(0, sampleFrame), sampleRate), rate);
  }

  /**
   * The sample frame at which the picture frame with a number begins; of a number that is left out,
   * that of the next one that is not.
   */
  static long frameOfNumber(long number, FrameRate ofPicture, int sampleRate) {
    FrameRate rate = counted(ofPicture);
    long minutes = number / (rate.nominal() * 60L);
    long intoMinute = number % (rate.nominal() * 60L);
    int leftOut = rate.dropsNumbers() && minutes % 10 != 0 ? rate.nominal() / 15 : 0;
    long given = number + Math.max(0, leftOut - intoMinute);
    return rate.sampleFrameOf(frameOf(given, minutes, rate), sampleRate);
  }

  /** Seconds with two decimals, as short texts and reports show a length. */
  public static String seconds(long sampleFrames, int sampleRate) {
    return "%.2f s".formatted(sampleFrames / (double) sampleRate);
  }

  /**
   * The sample frame of a typed time: timecode ({@code 1:02:03:04}, {@code 2:10}: seconds and
   * frames) or seconds ({@code 12.5}, {@code 12.5 s}). Empty when the text is neither.
   */
  public static OptionalLong parse(String text, FrameRate ofPicture, int sampleRate) {
    FrameRate rate = counted(ofPicture);
    String typed = text.strip().replace(';', ':');
    Matcher seconds = SECONDS.matcher(typed);
    if (seconds.matches()) {
      return OptionalLong.of(Math.round(Double.parseDouble(seconds.group(1)) * sampleRate));
    }
    Matcher clock = CLOCK.matcher(typed);
    if (!clock.matches()) {
      return OptionalLong.empty();
    }
    long minutes = 60 * part(clock.group(1)) + part(clock.group(2));
    long number = (minutes * 60 + part(clock.group(3))) * rate.nominal() + part(clock.group(4));
    return OptionalLong.of(rate.sampleFrameOf(frameOf(number, minutes, rate), sampleRate));
  }

  /**
   * By which rate is counted: pictures that come slower than once a second are counted as seconds.
   */
  static FrameRate counted(FrameRate rate) {
    return rate.perSecond() < 1 ? new FrameRate(1, 1) : rate;
  }

  private static long part(String digits) {
    return digits == null ? 0 : Long.parseLong(digits);
  }

  /** The number that timecode gives to the n-th picture frame. */
  private static long numberOf(long frame, FrameRate rate) {
    if (!rate.dropsNumbers()) {
      return frame;
    }
    int dropped = rate.nominal() / 15;
    long perMinute = rate.nominal() * 60L - dropped;
    long perTenMinutes = perMinute * 10 + dropped;
    long tens = frame / perTenMinutes;
    long rest = frame % perTenMinutes;
    long minutes = rest < perMinute + dropped ? 0 : (rest - dropped) / perMinute;
    return frame + dropped * (9 * tens + minutes);
  }

  private static long frameOf(long number, long minutes, FrameRate rate) {
    return rate.dropsNumbers() ? number - rate.nominal() / 15 * (minutes - minutes / 10) : number;
  }
}

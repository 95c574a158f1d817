package hushrise.core.time;

import java.util.stream.IntStream;
import java.util.stream.LongStream;

/**
 * Places along a film at round numbers of its timecode, as a ruler marks them: every so many
 * picture frames, of which a whole number makes a second, or every so many of timecode's seconds.
 * At 30000/1001 a picture comes every 1001/30000 s, so that these lie elsewhere than whole seconds
 * do.
 */
public final class TimecodeTicks {

  private static final int[] SECONDS = {
    1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1200, 1800, 3600, 7200, 18_000, 36_000
  };

  private final FrameRate rate;
  private final int sampleRate;
  private final long step;

  private TimecodeTicks(FrameRate rate, int sampleRate, long step) {
    this.rate = rate;
    this.sampleRate = sampleRate;
    this.step = step;
  }

  /**
   * The closest ticks that keep a distance from one another.
   *
   * @param apart sample frames that lie between two of them, at least; where timecode leaves
   *     numbers out, fewer by what it leaves out at one minute
   * @param ofPicture the picture's rate
   * @param sampleRate in Hz
   */
  public static TimecodeTicks atLeast(double apart, FrameRate ofPicture, int sampleRate) {
    FrameRate rate = Timecode.counted(ofPicture);
    int nominal = rate.nominal();
    IntStream partsOfSecond = IntStream.range(1, nominal).filter(n -> nominal % n == 0);
    LongStream seconds = IntStream.of(SECONDS).mapToLong(s -> (long) s * nominal);
    double perNumber = sampleRate / rate.perSecond();
    long step =
        LongStream.concat(partsOfSecond.asLongStream(), seconds)
            .filter(n -> (n - leftOut(n, rate)) * perNumber >= apart)
            .findFirst()
            .orElse((long) SECONDS[SECONDS.length - 1] * nominal);
    return new TimecodeTicks(ofPicture, sampleRate, step);
  }

  /**
   * How many of so many numbers are left out wherever they begin, besides those of one minute: at
   * every minute but each tenth (SMPTE ST 12-1).
   */
  private static long leftOut(long numbers, FrameRate rate) {
    long minutes = numbers / (rate.nominal() * 60L);
    return rate.dropsNumbers() ? rate.nominal() / 15 * Math.max(0, minutes - minutes / 10 - 1) : 0;
  }

  /** The last tick, counted from 0, at or before a sample frame. */
  public long tickAt(long sampleFrame) {
    return Timecode.numberAt(sampleFrame, rate, sampleRate) / step;
  }

  /** The sample frame of a tick of at least 0. */
  public long frameOf(long tick) {
    return Timecode.frameOfNumber(tick * step, rate, sampleRate);
  }
}

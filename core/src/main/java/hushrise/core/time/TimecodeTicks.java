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
   * @param apart sample frames that lie between two of them, at least
   * @param ofPicture the picture's rate
   * @param sampleRate in Hz
   */
  public static TimecodeTicks atLeast(double apart, FrameRate ofPicture, int sampleRate) {
    int nominal = Timecode.counted(ofPicture).nominal();
    IntStream partsOfSecond = IntStream.range(1, nominal).filter(n -> nominal % n == 0);
    LongStream seconds = IntStream.of(SECONDS).mapToLong(s -> (long) s * nominal);
    double perNumber = sampleRate / Timecode.counted(ofPicture).perSecond();
    long step =
        LongStream.concat(partsOfSecond.asLongStream(), seconds)
            .filter(n -> n * perNumber >= apart)
            .findFirst()
            .orElse((long) SECONDS[SECONDS.length - 1] * nominal);
    return new TimecodeTicks(ofPicture, sampleRate, step);
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

package hushrise.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.LongStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class TimecodeTicksTest {

  private static final int RATE = 48_000;

  @Provide
  Arbitrary<FrameRate> rates() {
    return Arbitraries.of(
        new FrameRate(25, 1),
        new FrameRate(30_000, 1001),
        new FrameRate(24_000, 1001),
        new FrameRate(60_000, 1001),
        new FrameRate(24, 1),
        new FrameRate(1, 4),
        new FrameRate(15, 2));
  }

  private static List<String> labels(FrameRate rate, double apartSeconds, long from, long to) {
    TimecodeTicks ticks = TimecodeTicks.atLeast(apartSeconds * RATE, rate, RATE);
    return LongStream.range(from, to)
        .mapToObj(i -> Timecode.format(ticks.frameOf(i), rate, RATE))
        .toList();
  }

  @Test
  void ticksCarryRoundTimecodeAtEveryRate() {
    assertThat(labels(new FrameRate(60_000, 1001), 8, 0, 4))
        .containsExactly("00:00:00;00", "00:00:10;00", "00:00:20;00", "00:00:30;00");
    assertThat(labels(new FrameRate(24_000, 1001), 100, 0, 4))
        .containsExactly("00:00:00:00", "00:02:00:00", "00:04:00:00", "00:06:00:00");
    assertThat(labels(new FrameRate(25, 1), 0.1, 4, 7))
        .containsExactly("00:00:00:20", "00:00:01:00", "00:00:01:05");
    assertThat(labels(new FrameRate(24, 1), 0.2, 3, 6))
        .containsExactly("00:00:00:18", "00:00:01:00", "00:00:01:06");
  }

  @Test
  void aNumberThatIsLeftOutIsMarkedByTheNextOne() {
    assertThat(labels(new FrameRate(30_000, 1001), 30, 1, 5))
        .containsExactly("00:00:30;00", "00:01:00;02", "00:01:30;00", "00:02:00;02");
    assertThat(labels(new FrameRate(60_000, 1001), 600, 0, 2))
        .containsExactly("00:00:00;00", "00:10:00;00");
    assertThat(labels(new FrameRate(30_000, 1001), 0, 1799, 1803))
        .containsExactly("00:00:59;29", "00:01:00;02", "00:01:00;02", "00:01:00;02");
  }

  @Test
  void anHourOfDropFrameTimecodeIsNoLongerThanAnHour() {
    FrameRate rate = new FrameRate(30_000, 1001);
    assertThat(labels(rate, 3600, 0, 2)).containsExactly("00:00:00;00", "01:00:00;00");
    assertThat(labels(rate, 3600.13, 0, 2)).containsExactly("00:00:00;00", "02:00:00;00");
  }

  @Property
  void ticksKeepTheirDistanceAndNoneIsPassedOver(
      @ForAll("rates") FrameRate rate,
      @ForAll @LongRange(max = 400_000_000) long frame,
      @ForAll @DoubleRange(min = 0.5, max = 4_000) double apartSeconds) {
    TimecodeTicks ticks = TimecodeTicks.atLeast(apartSeconds * RATE, rate, RATE);
    long tick = ticks.tickAt(frame);
    double onePicture = RATE / rate.perSecond();
    assertThat(ticks.frameOf(tick)).isLessThanOrEqualTo(frame);
    assertThat(ticks.frameOf(tick + 1)).isGreaterThan(frame);
    assertThat((double) ticks.frameOf(tick + 1) - ticks.frameOf(tick))
        .isGreaterThanOrEqualTo(apartSeconds * RATE - 4 * Math.min(onePicture, RATE) - 1);
  }
}

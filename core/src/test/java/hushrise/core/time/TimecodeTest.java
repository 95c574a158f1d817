package hushrise.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class TimecodeTest {

  private static final int RATE = 48_000;
  private static final FrameRate PAL = new FrameRate(25, 1);
  private static final FrameRate NTSC = new FrameRate(30_000, 1001);

  @Provide
  Arbitrary<FrameRate> rates() {
    return Arbitraries.of(
        PAL,
        NTSC,
        new FrameRate(24, 1),
        new FrameRate(24_000, 1001),
        new FrameRate(50, 1),
        new FrameRate(60_000, 1001));
  }

  @Test
  void timecodeCountsFramesAtThePicturesRate() {
    assertThat(Timecode.format(0, PAL, RATE)).isEqualTo("00:00:00:00");
    assertThat(Timecode.format(RATE * 3_725L + 1_920 * 3, PAL, RATE)).isEqualTo("01:02:05:03");
  }

  @Test
  void dropFrameLeavesOutTwoNumbersEachMinuteButTheTenth() {
    assertThat(Timecode.format(NTSC.sampleFrameOf(1_799, RATE), NTSC, RATE))
        .isEqualTo("00:00:59;29");
    assertThat(Timecode.format(NTSC.sampleFrameOf(1_800, RATE), NTSC, RATE))
        .isEqualTo("00:01:00;02");
    assertThat(Timecode.format(NTSC.sampleFrameOf(17_982, RATE), NTSC, RATE))
        .isEqualTo("00:10:00;00");
    assertThat(Timecode.format(NTSC.sampleFrameOf(107_892, RATE), NTSC, RATE))
        .isEqualTo("01:00:00;00");
  }

  @Property
  void whatIsShownIsReadBackAsTheSameFrame(
      @ForAll("rates") FrameRate rate, @ForAll @LongRange(max = 2_000_000) long frame) {
    long sample = rate.sampleFrameOf(frame, RATE);
    assertThat(rate.pictureFrameAt(sample, RATE)).isEqualTo(frame);
    assertThat(rate.pictureFrameAt(sample - 1, RATE)).isEqualTo(frame - 1);
    assertThat(Timecode.parse(Timecode.format(sample, rate, RATE), rate, RATE)).hasValue(sample);
  }

  @Test
  void timesAreTypedAsTimecodeOrSeconds() {
    assertThat(Timecode.parse("12.5", PAL, RATE)).hasValue(600_000);
    assertThat(Timecode.parse(" 12.5 s", PAL, RATE)).hasValue(600_000);
    assertThat(Timecode.parse("2:05", PAL, RATE)).hasValue(2 * 48_000 + 5 * 1_920);
    assertThat(Timecode.parse("1:00:00", PAL, RATE)).hasValue(60 * 48_000);
    assertThat(Timecode.parse("soon", PAL, RATE)).isEmpty();
    assertThat(Timecode.parse("-3", PAL, RATE)).isEmpty();
  }

  @Test
  void picturesSlowerThanOneASecondAreCountedInSeconds() {
    for (FrameRate slow : new FrameRate[] {new FrameRate(1, 4), new FrameRate(1, 60)}) {
      assertThat(Timecode.format(125 * 48_000L, slow, 48_000)).isEqualTo("00:02:05:00");
      assertThat(Timecode.parse("2:05:00", slow, 48_000)).hasValue(125 * 48_000L);
      assertThat(slow.nominal()).isEqualTo(1);
    }
  }
}

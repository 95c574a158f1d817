package hushrise.core.loudness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

/** The synthetic signals of EBU Tech 3342, table 1. */
class EbuTech3342Test {

  private static double rangeOf(double... levels) {
    Tones tones = new Tones(48_000);
    for (double level : levels) {
      tones.at(level, 20);
    }
    return tones.stereo().loudnessRangeLu();
  }

  @Test
  void case1_tenLuBetweenMinus20AndMinus30() {
    assertThat(rangeOf(-20, -30)).isCloseTo(10, within(1.0));
  }

  @Test
  void case2_fiveLuBetweenMinus20AndMinus15() {
    assertThat(rangeOf(-20, -15)).isCloseTo(5, within(1.0));
  }

  @Test
  void case3_twentyLuBetweenMinus40AndMinus20() {
    assertThat(rangeOf(-40, -20)).isCloseTo(20, within(1.0));
  }

  @Test
  void case4_fifteenLuOverFiveSteps() {
    assertThat(rangeOf(-50, -35, -20, -35, -50)).isCloseTo(15, within(1.0));
  }
}

package hushrise.core.loudness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The synthetic signals of EBU Tech 3341, table 1, made from their description. */
class EbuTech3341Test {

  private static final int RATE = 48_000;
  private static final Offset<Double> TENTH_LU = within(0.1);

  @ParameterizedTest(name = "case 1 at {0} Hz")
  @ValueSource(ints = {8_000, 32_000, 44_100, 48_000, 96_000, 192_000})
  void case01_steadyToneAtMinus23(int rate) {
    LoudnessMeter meter = new Tones(rate).at(-23, 20).stereo();
    assertThat(meter.momentaryLufs()).isCloseTo(-23, TENTH_LU);
    assertThat(meter.shortTermLufs()).isCloseTo(-23, TENTH_LU);
    assertThat(meter.integratedLufs()).isCloseTo(-23, TENTH_LU);
  }

  @Test
  void case02_steadyToneAtMinus33() {
    LoudnessMeter meter = new Tones(RATE).at(-33, 20).stereo();
    assertThat(meter.momentaryLufs()).isCloseTo(-33, TENTH_LU);
    assertThat(meter.shortTermLufs()).isCloseTo(-33, TENTH_LU);
    assertThat(meter.integratedLufs()).isCloseTo(-33, TENTH_LU);
  }

  @Test
  void case03_relativeGateLeavesOutQuietEnds() {
    assertThat(new Tones(RATE).at(-36, 10).at(-23, 60).at(-36, 10).stereo().integratedLufs())
        .isCloseTo(-23, TENTH_LU);
  }

  @Test
  void case04_absoluteGateLeavesOutVeryQuietEnds() {
    assertThat(
            new Tones(RATE)
                .at(-72, 10)
                .at(-36, 10)
                .at(-23, 60)
                .at(-36, 10)
                .at(-72, 10)
                .stereo()
                .integratedLufs())
        .isCloseTo(-23, TENTH_LU);
  }

  @Test
  void case05_levelsWithinTheGateAreAveraged() {
    assertThat(new Tones(RATE).at(-26, 20).at(-20, 20.1).at(-26, 20).stereo().integratedLufs())
        .isCloseTo(-23, TENTH_LU);
  }

  @Test
  void case06_fiveChannelsAreWeighted() {
    LoudnessMeter meter = new LoudnessMeter(RATE, 1, 1, 1, 1.41, 1.41);
    float[] front = new Tones(RATE).at(-28, 20).samples();
    float[] centre = new Tones(RATE).at(-24, 20).samples();
    float[] surround = new Tones(RATE).at(-30, 20).samples();
    meter.add(new float[][] {front, front, centre, surround, surround}, 0, front.length);
    assertThat(meter.integratedLufs()).isCloseTo(-23, TENTH_LU);
  }

  @Test
  void case09_shortTermStaysConstantOverAlternatingLevels() {
    Tones tones = new Tones(RATE);
    for (int i = 0; i < 5; i++) {
      tones.at(-20, 1.34).at(-30, 1.66);
    }
    float[] samples = tones.samples();
    LoudnessMeter meter = LoudnessMeter.forChannels(RATE, 2);
    for (int at = 0; at < samples.length; at += RATE / 10) {
      meter.add(new float[][] {samples, samples}, at, RATE / 10);
      if (at >= 3 * RATE) {
        assertThat(meter.shortTermLufs()).isCloseTo(-23, TENTH_LU);
      }
    }
  }

  @Test
  void case10_maximumShortTermDoesNotDependOnWhereAToneBegins() {
    for (int i = 0; i < 20; i++) {
      LoudnessMeter meter = new Tones(RATE).silence(i * 0.15).at(-23, 3).silence(1).stereo();
      assertThat(meter.maxShortTermLufs()).as("segment %d", i).isCloseTo(-23, TENTH_LU);
    }
  }

  @Test
  void case11_maximumShortTermFollowsRisingSegments() {
    LoudnessMeter meter = LoudnessMeter.forChannels(RATE, 2);
    for (int i = 0; i < 20; i++) {
      float[] segment =
          new Tones(RATE).silence(i * 0.15).at(-38 + i, 3).silence(3 - i * 0.15).samples();
      meter.add(new float[][] {segment, segment}, 0, segment.length);
      assertThat(meter.maxShortTermLufs()).as("segment %d", i).isCloseTo(-38.0 + i, TENTH_LU);
    }
  }

  @Test
  void case12_momentaryStaysConstantOverAlternatingLevels() {
    Tones tones = new Tones(RATE);
    for (int i = 0; i < 25; i++) {
      tones.at(-20, 0.18).at(-30, 0.22);
    }
    float[] samples = tones.samples();
    LoudnessMeter meter = LoudnessMeter.forChannels(RATE, 2);
    for (int at = 0; at < samples.length; at += RATE / 50) {
      meter.add(new float[][] {samples, samples}, at, RATE / 50);
      if (at >= RATE) {
        assertThat(meter.momentaryLufs()).isCloseTo(-23, TENTH_LU);
      }
    }
  }

  @Test
  void case13_maximumMomentaryDoesNotDependOnWhereAToneBegins() {
    for (int i = 0; i < 20; i++) {
      LoudnessMeter meter = new Tones(RATE).silence(i * 0.02).at(-23, 0.4).silence(1).stereo();
      assertThat(meter.maxMomentaryLufs()).as("segment %d", i).isCloseTo(-23, TENTH_LU);
    }
  }

  @Test
  void case14_maximumMomentaryFollowsRisingSegments() {
    LoudnessMeter meter = LoudnessMeter.forChannels(RATE, 2);
    for (int i = 0; i < 20; i++) {
      float[] segment =
          new Tones(RATE).silence(i * 0.02).at(-38 + i, 0.4).silence(0.4 - i * 0.02).samples();
      meter.add(new float[][] {segment, segment}, 0, segment.length);
      assertThat(meter.maxMomentaryLufs()).as("segment %d", i).isCloseTo(-38.0 + i, TENTH_LU);
    }
  }

  @ParameterizedTest(name = "case {0}: fs/{1}, {2} of full scale, {3} degrees")
  @CsvSource({
    "15, 4, 0.50,  0,   -6",
    "16, 4, 0.50, 45,   -6",
    "17, 6, 0.50, 60,   -6",
    "18, 8, 0.50, 67.5, -6",
    "19, 4, 1.41, 45,    3"
  })
  void case15to19_truePeakOfSteadyTones(
      int number, int divisor, double amplitude, double degrees, double dbtp) {
    float[] samples = new float[RATE];
    for (int i = 0; i < samples.length; i++) {
      double faded = Math.min(1, Math.min(i, samples.length - i) / 500.0);
      samples[i] =
          (float)
              (faded * amplitude * Math.sin(2 * Math.PI * i / divisor + Math.toRadians(degrees)));
    }
    assertThat(truePeakDb(samples)).as("case %d", number).isBetween(dbtp - 0.4, dbtp + 0.2);
  }

  @ParameterizedTest(name = "case {0}: decimated with an offset of {1}")
  @CsvSource({"20, 0", "21, 1", "22, 2", "23, 3"})
  void case20to23_truePeakBetweenSamplesWhateverTheDecimation(int number, int offset) {
    float[] samples = decimated(burst(), offset);
    assertThat(truePeakDb(samples)).as("case %d", number).isBetween(-0.4, 0.2);
  }

  /**
   * At four times the rate: a sine of a sixth of the rate at half of full scale, with one period in
   * its middle at full scale.
   */
  private static double[] burst() {
    double[] high = new double[4 * RATE / 2];
    int period = 24;
    int middle = high.length / 2 / period * period;
    for (int i = 0; i < high.length; i++) {
      double amplitude = i >= middle && i < middle + period ? 1.0 : 0.5;
      double faded = Math.min(1, Math.min(i, high.length - i) / 2000.0);
      high[i] = faded * amplitude * Math.sin(2 * Math.PI * i / period);
    }
    return high;
  }

  /** Every fourth sample behind a windowed-sinc low pass at half the low rate. */
  private static float[] decimated(double[] high, int offset) {
    int reach = 160;
    float[] low = new float[high.length / 4 - 2 * reach];
    for (int i = 0; i < low.length; i++) {
      int centre = (i + reach) * 4 + offset;
      double sum = 0;
      for (int k = -reach; k <= reach; k++) {
        double x = k / 4.0;
        double sinc = k == 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
        double window = 0.5 + 0.5 * Math.cos(Math.PI * k / (reach + 1));
        sum += high[centre + k] * sinc * window / 4;
      }
      low[i] = (float) sum;
    }
    return low;
  }

  private static double truePeakDb(float[] samples) {
    TruePeakMeter meter = new TruePeakMeter();
    meter.add(samples, 0, samples.length);
    return 20 * Math.log10(meter.truePeak());
  }
}

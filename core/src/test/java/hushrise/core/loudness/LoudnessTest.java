package hushrise.core.loudness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.util.Random;
import org.junit.jupiter.api.Test;

class LoudnessTest {

  private static float[] noise(int frames, long seed, float level) {
    Random random = new Random(seed);
    float[] samples = new float[frames];
    for (int i = 0; i < frames; i++) {
      samples[i] = (random.nextFloat() * 2 - 1) * level;
    }
    return samples;
  }

  @Test
  void aMonoToneInOneChannelIsThreeLuQuieterThanInTwo() {
    float[] tone = new Tones(48_000).at(-23, 5).samples();
    double mono = Measurement.of(SampleSource.of(tone), 48_000, Progress.NONE).integratedLufs();
    double both =
        Measurement.of(SampleSource.of(tone, tone), 48_000, Progress.NONE).integratedLufs();
    assertThat(both - mono).isCloseTo(3.01, within(0.01));
  }

  @Test
  void measuringInSmallPiecesGivesTheSameToTheBit() {
    float[] left = noise(48_000 * 5, 1, 0.4f);
    float[] right = noise(48_000 * 5, 2, 0.2f);
    LoudnessMeter whole = LoudnessMeter.forChannels(48_000, 2);
    whole.add(new float[][] {left, right}, 0, left.length);
    LoudnessMeter pieces = LoudnessMeter.forChannels(48_000, 2);
    for (int at = 0; at < left.length; at += 777) {
      pieces.add(new float[][] {left, right}, at, Math.min(777, left.length - at));
    }
    assertThat(pieces.integratedLufs()).isCloseTo(whole.integratedLufs(), within(1e-9));
    assertThat(pieces.maxMomentaryLufs()).isCloseTo(whole.maxMomentaryLufs(), within(1e-9));
  }

  @Test
  void twoChannelsAtOnceAreEachWhatItIsByItselfToTheBit() {
    float[] left = noise(4_800, 1, 0.4f);
    float[] right = noise(4_800, 2, 0.2f);
    KWeighting[] both = {new KWeighting(44_100), new KWeighting(44_100)};
    KWeighting[] each = {new KWeighting(44_100), new KWeighting(44_100)};
    double[] sums = new double[2];
    for (int at = 0; at < left.length; at += 441) {
      int n = Math.min(441, left.length - at);
      KWeighting.squares(both[0], both[1], left, right, at, n, sums);
      assertThat(sums[0]).isEqualTo(each[0].squares(left, at, n));
      assertThat(sums[1]).isEqualTo(each[1].squares(right, at, n));
    }
    assertThat(both[0].standsLike(each[0])).isTrue();
    assertThat(both[1].standsLike(each[1])).isTrue();
  }

  @Test
  void passingOverQuietStretchesChangesNoTruePeak() {
    float[] samples = noise(20_000, 3, 0.3f);
    samples[9_000] = 0.7f;
    samples[9_001] = 0.72f;
    TruePeakMeter meter = new TruePeakMeter();
    meter.add(samples, 0, samples.length);
    assertThat(meter.truePeak()).isCloseTo(slowTruePeak(samples), within(1e-6));
  }

  /** The filter of the standard over every sample, without shortcuts. */
  private static double slowTruePeak(float[] samples) {
    double[] phase1 = {
      -0.0291748046875, 0.0292968750000, -0.0517578125000, 0.0891113281250, -0.1665039062500,
      0.4650878906250, 0.7797851562500, -0.2003173828125, 0.1015625000000, -0.0582275390625,
      0.0330810546875, -0.0189208984375
    };
    double[] phase0 = {
      0.0017089843750, 0.0109863281250, -0.0196533203125, 0.0332031250000, -0.0594482421875,
      0.1373291015625, 0.9721679687500, -0.1022949218750, 0.0476074218750, -0.0266113281250,
      0.0148925781250, -0.0083007812500
    };
    double peak = 0;
    for (int i = 0; i < samples.length; i++) {
      double[] sums = new double[4];
      for (int tap = 0; tap < 12; tap++) {
        double x = i - tap < 0 ? 0 : samples[i - tap];
        sums[0] += phase0[tap] * x;
        sums[1] += phase1[tap] * x;
        sums[2] += phase1[11 - tap] * x;
        sums[3] += phase0[11 - tap] * x;
      }
      for (double sum : sums) {
        peak = Math.max(peak, Math.abs(sum));
      }
      peak = Math.max(peak, Math.abs(samples[i]));
    }
    return peak;
  }

  @Test
  void silenceHasNoLoudness() {
    Measurement m = Measurement.of(SampleSource.of(new float[48_000]), 48_000, Progress.NONE);
    assertThat(m.integratedLufs()).isEqualTo(Double.NEGATIVE_INFINITY);
    assertThat(m.truePeakDbtp()).isEqualTo(Double.NEGATIVE_INFINITY);
    assertThat(m.loudnessRangeLu()).isZero();
  }

  @Test
  void aSoundShorterThanABlockIsMeasuredAsAWhole() {
    float[] tone = new Tones(48_000).at(-23, 0.2).samples();
    double lufs =
        Measurement.of(SampleSource.of(tone, tone), 48_000, Progress.NONE).integratedLufs();
    assertThat(lufs).isCloseTo(-23, within(0.3));
  }
}

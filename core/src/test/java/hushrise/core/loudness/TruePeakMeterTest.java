package hushrise.core.loudness;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;

/**
 * What passes over stretches and takes many values at a time finds what reckoning each one does.
 */
class TruePeakMeterTest {

  /** Sound of any kind: noise, or a swelling tone, low or high, with jumps and silence in it. */
  private static float[] sound(Random random, int length) {
    float[] sound = new float[length];
    double pitch = Math.pow(10, -3.5 + 4 * random.nextDouble());
    double noise = random.nextInt(3) * random.nextDouble();
    double swell = 1e-4 + 0.01 * random.nextDouble();
    boolean silent = false;
    double offset = 0;
    for (int i = 0; i < length; i++) {
      if (random.nextInt(200) == 0) {
        silent = !silent;
        offset = random.nextInt(4) == 0 ? random.nextGaussian() / 3 : 0;
      }
      double tone = Math.sin(pitch * i) * (1 + Math.sin(swell * i)) / 2;
      sound[i] = silent ? 0 : (float) (offset + tone + noise * random.nextGaussian());
    }
    return sound;
  }

  /** The largest of all samples and of all values between, with silence before and after. */
  private static float reckoned(float[] sound) {
    int around = Oversampler.TAPS;
    float[] padded = new float[sound.length + 2 * around];
    System.arraycopy(sound, 0, padded, around, sound.length);
    float largest = 0;
    for (float sample : sound) {
      largest = Math.max(largest, Math.abs(sample));
    }
    return Oversampler.largestOneByOne(padded, 0, padded.length - around + 1, largest);
  }

  @Property(tries = 400)
  void theMeterFindsWhatReckoningEachValueDoes(
      @ForAll long seed, @ForAll @IntRange(min = 1, max = 3_000) int length) {
    Random random = new Random(seed);
    float[] sound = sound(random, length);
    TruePeakMeter meter = new TruePeakMeter();
    for (int done = 0; done < length; ) {
      int n = Math.min(length - done, 1 + random.nextInt(700));
      meter.add(sound, done, n);
      done += n;
    }
    assertThat((float) meter.truePeak()).isEqualTo(reckoned(sound));
    assertThat((float) meter.truePeak()).as("asked again").isEqualTo(reckoned(sound));
  }

  @Property(tries = 200)
  void rowsGiveWhatOneByOneDoes(
      @ForAll long seed, @ForAll @IntRange(min = 1, max = Oversampler.MOST) int n) {
    float[] sound = sound(new Random(seed), n + 20);
    float oneByOne = Oversampler.largestOneByOne(sound, 7, n, 0.01f);
    assertThat(new Oversampler().largestInRows(sound, 7, n, 0.01f)).isEqualTo(oneByOne);
  }

  @Property(tries = 400)
  void whatIsSaidToStayUnderDoes(@ForAll long seed) {
    Random random = new Random(seed);
    float[] sound = sound(random, 43);
    float largest = 0;
    for (float sample : sound) {
      largest = Math.max(largest, Math.abs(sample));
    }
    float highest = Oversampler.largestOneByOne(sound, 0, 32, 0);
    float under = highest * (1 - 1e-3f * random.nextFloat());
    assertThat(highest > 0 && Oversampler.staysUnder(sound, 0, 43, largest, under)).isFalse();
  }

  @Property(tries = 200)
  void withinSomeSamplesItFindsWhatLiesBehindTheFirst(
      @ForAll long seed, @ForAll @IntRange(min = 12, max = 2_000) int n) {
    float[] sound = sound(new Random(seed), n + 10);
    int values = n - TruePeakMeter.BEFORE;
    float between = Oversampler.largestOneByOne(sound, 5, values, 0);
    float found = new TruePeakMeter().within(sound, 5, n, 0);
    assertThat(found).isGreaterThanOrEqualTo(between);
    for (int i = 0; i < values; i++) {
      assertThat(found).isGreaterThanOrEqualTo(Math.abs(sound[5 + TruePeakMeter.BEFORE + i]));
    }
    assertThat(new TruePeakMeter().within(sound, 5, n, 2 * found + 1)).isEqualTo(2 * found + 1);
  }
}

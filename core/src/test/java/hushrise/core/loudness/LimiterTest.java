package hushrise.core.loudness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Decibels;
import java.util.Arrays;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The look-ahead limiter: what it holds, and what it leaves alone. */
class LimiterTest {

  private static final int RATE = 48_000;

  /**
   * How far a peak may come out above the ceiling: the factor moves while the interpolation looks.
   */
  private static final double SLACK_DB = 0.01;

  private record Sound(String name, float[] left, float[] right) {
    @Override
    public String toString() {
      return name;
    }
  }

  private static Sound of(String name, java.util.function.IntToDoubleFunction sample) {
    float[] left = new float[2 * RATE];
    float[] right = new float[2 * RATE];
    for (int i = 0; i < left.length; i++) {
      left[i] = (float) sample.applyAsDouble(i);
      right[i] = (float) (0.3 * sample.applyAsDouble((i + 777) % left.length));
    }
    return new Sound(name, left, right);
  }

  static Stream<Sound> hard() {
    Random random = new Random(5);
    float[] noise = new float[2 * RATE];
    for (int i = 0; i < noise.length; i++) {
      noise[i] = (float) random.nextGaussian();
    }
    return Stream.of(
        of("between samples", i -> 1.6 * Math.sin(Math.PI / 2 * i + Math.PI / 4)),
        of("noise", i -> 0.6 * noise[i]),
        of("one sample", i -> i == RATE ? 4 : 0),
        of("clipped", i -> Math.clamp(9 * Math.sin(2 * Math.PI * 110 * i / RATE), -2, 2)),
        of("bursts", i -> i / 4800 % 3 == 0 ? 3 * noise[i] : 0.01 * noise[i]),
        of("bass", i -> 3 * Math.sin(2 * Math.PI * 41 * i / RATE)));
  }

  private static double truePeakDb(float[] samples) {
    TruePeakMeter meter = new TruePeakMeter();
    meter.add(samples, 0, samples.length);
    return Decibels.ofFactor(meter.truePeak());
  }

  /** What comes out, in step with what went in; handed over in pieces of odd lengths. */
  private static Sound limited(Limiter limiter, Sound sound) {
    int delay = limiter.delayFrames();
    float[] left = Arrays.copyOf(sound.left(), sound.left().length + delay);
    float[] right = Arrays.copyOf(sound.right(), sound.right().length + delay);
    Random random = new Random(3);
    for (int at = 0; at < left.length; ) {
      int n = Math.min(left.length - at, 1 + random.nextInt(3000));
      float[] partLeft = Arrays.copyOfRange(left, at, at + n);
      float[] partRight = Arrays.copyOfRange(right, at, at + n);
      limiter.process(partLeft, partRight, n);
      System.arraycopy(partLeft, 0, left, at, n);
      System.arraycopy(partRight, 0, right, at, n);
      at += n;
    }
    return new Sound(
        sound.name(),
        Arrays.copyOfRange(left, delay, left.length),
        Arrays.copyOfRange(right, delay, right.length));
  }

  @ParameterizedTest
  @MethodSource("hard")
  void noPeakPassesTheCeiling(Sound sound) {
    for (double ceiling : new double[] {-0.1, -1, -6}) {
      Limiter limiter = new Limiter(RATE, ceiling);
      Sound out = limited(limiter, sound);
      assertThat(truePeakDb(out.left())).isLessThanOrEqualTo(ceiling + SLACK_DB);
      assertThat(truePeakDb(out.right())).isLessThanOrEqualTo(ceiling + SLACK_DB);
      double over = Math.max(truePeakDb(sound.left()), truePeakDb(sound.right())) - ceiling;
      assertThat(limiter.mostDb()).isCloseTo(over, within(0.3));
      assertThat(limiter.activeFrames()).isPositive();
    }
  }

  @ParameterizedTest
  @MethodSource("hard")
  void whatLiesUnderTheCeilingComesOutBitForBit(Sound sound) {
    float factor = (float) Decibels.toFactor(-1 - truePeakDb(sound.left()));
    float[] left = sound.left().clone();
    float[] right = sound.right().clone();
    for (int i = 0; i < left.length; i++) {
      left[i] *= factor;
      right[i] *= factor;
    }
    Limiter limiter = new Limiter(RATE, -0.99);
    Sound out = limited(limiter, new Sound(sound.name(), left, right));
    assertThat(out.left()).isEqualTo(left);
    assertThat(out.right()).isEqualTo(right);
    assertThat(limiter.activeFrames()).isZero();
  }

  @Test
  void awayFromAPeakNothingIsTouched() {
    Sound sound = of("one", i -> i == RATE ? 2 : 0.2 * Math.sin(2 * Math.PI * 440 * i / RATE));
    Sound out = limited(new Limiter(RATE, -1), sound);
    int before = RATE - RATE / 100;
    assertThat(Arrays.copyOf(out.left(), before)).isEqualTo(Arrays.copyOf(sound.left(), before));
    int after = RATE + RATE * 19 / 20;
    assertThat(Arrays.copyOfRange(out.left(), after, out.left().length - 800))
        .isEqualTo(Arrays.copyOfRange(sound.left(), after, sound.left().length - 800));
    assertThat(out.left()[RATE]).isCloseTo((float) Decibels.toFactor(-1), within(0.02f));
  }

  @Test
  void bothChannelsAreTurnedDownAlike() {
    Sound sound = of("bass", i -> 3 * Math.sin(2 * Math.PI * 41 * i / RATE));
    Sound out = limited(new Limiter(RATE, -3), sound);
    for (int i = 1000; i < out.left().length - 1000; i += 331) {
      if (Math.abs(sound.left()[i]) > 0.1 && Math.abs(sound.right()[i]) > 0.1) {
        assertThat(out.left()[i] / sound.left()[i])
            .isCloseTo(out.right()[i] / sound.right()[i], within(1e-5f));
      }
    }
  }
}

package hushrise.core.loudness;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** After sound comes silence, and the filters come to rest: numbers near nothing are slow. */
class SilenceTest {

  private static final int RATE = 48_000;
  private static final int STEP = RATE / 100;

  @Test
  void theFilterComesToRestInSilenceAtEveryRate() {
    for (int rate : new int[] {8_000, 44_100, RATE, 192_000}) {
      KWeighting filter = new KWeighting(rate);
      Random random = new Random(rate);
      float[] noise = new float[STEP];
      for (int i = 0; i < STEP; i++) {
        noise[i] = random.nextFloat() - 0.5f;
      }
      assertThat(filter.squares(noise, 0, STEP)).isPositive();
      assertThat(filter.isAtRest()).isFalse();
      for (int step = 0; step < 600; step++) {
        filter.squares(new float[STEP], 0, STEP);
      }
      assertThat(filter.isAtRest()).as("at %d Hz", rate).isTrue();
      assertThat(filter.squares(new float[STEP], 0, STEP)).isZero();
    }
  }

  @Test
  void comingToRestChangesNoLoudness() {
    KWeighting filter = new KWeighting(RATE);
    KWeighting fresh = new KWeighting(RATE);
    float[] tone = new float[STEP];
    for (int i = 0; i < STEP; i++) {
      tone[i] = (float) Math.sin(2 * Math.PI * 440 * i / RATE);
    }
    filter.squares(tone, 0, STEP);
    for (int step = 0; step < 600; step++) {
      filter.squares(new float[STEP], 0, STEP);
    }
    assertThat(filter.squares(tone, 0, STEP)).isEqualTo(fresh.squares(tone, 0, STEP));
  }
}

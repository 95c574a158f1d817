package hushrise.core.record;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Pauses in which a take is brought back into step, in rooms where the film is heard. */
class StepTest {

  private static final int RATE = 48_000;
  private static final int BLOCK = 480;
  private static final int REMEMBERED = 200;

  private final Random random = new Random(5);

  private static float[] block(float peak) {
    float[] block = new float[BLOCK];
    Arrays.fill(block, peak);
    return block;
  }

  private float music() {
    return 0.001f * (1 + random.nextFloat());
  }

  @Test
  void oneMomentOfSilenceDoesNotHideThatAllElseIsAPauseToo() {
    TakeSink.Kept kept = new TakeSink.Kept(4 * RATE);
    Step step = new Step(kept, RATE);
    for (int i = 0; i < REMEMBERED; i++) {
      step.write(block(i == 150 ? 0.0001f : music()), BLOCK, 0);
    }
    long ahead = -RATE * 60 / 1_000; // the film has stood still for 60 ms
    int blocks = 0;
    for (; ahead < -RATE * 3 / 1_000 && blocks < 40; blocks++) {
      long before = kept.frames();
      step.write(block(music()), BLOCK, ahead);
      ahead += BLOCK - (kept.frames() - before);
    }
    assertThat(blocks).isBetween(6, 39);
  }

  @Test
  void wordsAreKeptWhole() {
    TakeSink.Kept kept = new TakeSink.Kept(4 * RATE);
    Step step = new Step(kept, RATE);
    for (int i = 0; i < REMEMBERED; i++) {
      step.write(block(music()), BLOCK, 0);
    }
    for (int i = 0; i < 50; i++) {
      step.write(block(0.05f + 0.1f * random.nextFloat()), BLOCK, -RATE);
    }
    assertThat(kept.frames()).isEqualTo((REMEMBERED + 50L) * BLOCK);
  }
}

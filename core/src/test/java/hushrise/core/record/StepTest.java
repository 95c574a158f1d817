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

  /** Two hundred blocks of a quiet hum, and one more, which lies elsewhere than expected. */
  private float[] hum(TakeSink.Kept kept, long ahead) {
    Step step = new Step(kept, RATE);
    float[] block = new float[BLOCK];
    for (int at = 0, i = 0; i <= REMEMBERED; i++) {
      for (int j = 0; j < BLOCK; j++, at++) {
        block[j] = (float) (0.001 * Math.sin(2 * Math.PI * 110 * at / RATE));
      }
      step.write(block, BLOCK, i < REMEMBERED ? 0 : ahead);
    }
    return block;
  }

  @Test
  void whatIsTooMuchGoesWithoutAClick() {
    TakeSink.Kept kept = new TakeSink.Kept(4 * RATE);
    int over = 200;
    int fade = RATE / 1_000;
    float[] last = hum(kept, -over);
    float[] take = kept.samples();
    int start = REMEMBERED * BLOCK;
    assertThat(take).hasSize(start + BLOCK - over);
    assertThat(Arrays.copyOfRange(take, start + fade, take.length))
        .isEqualTo(Arrays.copyOfRange(last, over + fade, BLOCK));
    double ofTheHum = 0.001 * 2 * Math.PI * 110 / RATE;
    double ofTheFade = 2 * 0.001 / fade;
    for (int i = start - 1; i < start + fade; i++) {
      assertThat(Math.abs(take[i + 1] - take[i]))
          .as("a step")
          .isLessThan((float) (ofTheHum + ofTheFade));
    }
    assertThat(Math.abs(take[start] - last[0])).isLessThan((float) ofTheFade);
  }

  @Test
  void silenceStandsForWhatIsMissing() {
    TakeSink.Kept kept = new TakeSink.Kept(4 * RATE);
    int missing = 300;
    float[] last = hum(kept, missing);
    float[] take = kept.samples();
    int start = REMEMBERED * BLOCK;
    assertThat(take).hasSize(start + missing + BLOCK);
    assertThat(Arrays.copyOfRange(take, start, start + missing)).containsOnly(0);
    assertThat(Arrays.copyOfRange(take, start + missing, take.length)).isEqualTo(last);
  }
}

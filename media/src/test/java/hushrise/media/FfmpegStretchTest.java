package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Slower or faster at the same pitch. */
class FfmpegStretchTest {

  private static final int RATE = 48_000;
  private static final int BLOCK = 512;
  private static final double HERTZ = 441;

  /** What comes out of ten seconds of a tone, right being the left turned upside down. */
  private static float[] stretched(FfmpegStretch stretch, int seconds) {
    float[] all = new float[RATE * seconds * 3];
    int got = 0;
    float[] left = new float[BLOCK];
    float[] right = new float[BLOCK];
    float[] outLeft = new float[2 * BLOCK];
    float[] outRight = new float[2 * BLOCK];
    for (int at = 0; at + BLOCK <= RATE * seconds; at += BLOCK) {
      for (int i = 0; i < BLOCK; i++) {
        left[i] = (float) (0.5 * Math.sin(2 * Math.PI * HERTZ * (at + i) / RATE));
        right[i] = -left[i];
      }
      stretch.put(left, right, BLOCK);
      for (int n = stretch.take(outLeft, outRight); n > 0; n = stretch.take(outLeft, outRight)) {
        for (int i = 0; i < n; i++) {
          assertThat(outRight[i]).isCloseTo(-outLeft[i], within(1e-4f));
        }
        System.arraycopy(outLeft, 0, all, got, n);
        got += n;
      }
    }
    return Arrays.copyOf(all, got);
  }

  private static double pitch(float[] samples) {
    int crossings = 0;
    int from = RATE;
    int to = samples.length - RATE;
    for (int i = from; i < to; i++) {
      crossings += samples[i - 1] < 0 && samples[i] >= 0 ? 1 : 0;
    }
    return crossings * (double) RATE / (to - from);
  }

  @ParameterizedTest
  @ValueSource(doubles = {0.5, 0.75, 1.25, 2})
  void theTimeChangesAndThePitchStays(double speed) {
    try (FfmpegStretch stretch = new FfmpegStretch(RATE, speed)) {
      float[] out = stretched(stretch, 10);
      assertThat(out.length / (double) RATE).isCloseTo(10 / speed, within(0.25));
      assertThat(pitch(out)).isCloseTo(HERTZ, within(4.0));
      stretch.reset();
      assertThat(stretched(stretch, 10).length).as("as new").isEqualTo(out.length);
    }
  }

  /** The end of a loop is a short block; a whole one comes after it. */
  @Test
  void shortBlocksBetweenWholeOnesComeOutWhole() {
    try (FfmpegStretch stretch = new FfmpegStretch(48_000, 0.5)) {
      float[] left = new float[512];
      float[] right = new float[512];
      Arrays.fill(left, 0.25f);
      Arrays.fill(right, -0.5f);
      float[] outLeft = new float[1024];
      float[] outRight = new float[1024];
      long given = 0;
      long taken = 0;
      for (int i = 0; i < 4_000; i++) {
        int n = i % 2 == 0 ? 1 + i % 7 : 512;
        stretch.put(left, right, n);
        given += n;
        for (int got = stretch.take(outLeft, outRight);
            got > 0;
            got = stretch.take(outLeft, outRight)) {
          assertThat(outLeft[got - 1]).isBetween(0.24f, 0.26f);
          assertThat(outRight[got - 1]).isBetween(-0.51f, -0.49f);
          taken += got;
        }
      }
      assertThat(taken / (double) given).isBetween(1.95, 2.0);
    }
  }
}

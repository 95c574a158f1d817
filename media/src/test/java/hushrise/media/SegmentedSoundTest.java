package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.sound.SampleSource;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Sound that is encoded in segments joins to the sample. */
class SegmentedSoundTest extends MediaTestCase {

  private static final int SECONDS = 21;

  /** A chord that swells, with noise and strokes in it. */
  private static float[] tune() {
    Random random = new Random(4);
    float[] samples = new float[SECONDS * RATE + 333];
    for (int i = 0; i < samples.length; i++) {
      double t = i / (double) RATE;
      double chord = Math.sin(2 * Math.PI * 220 * t) + 0.7 * Math.sin(2 * Math.PI * 331 * t);
      double stroke = Math.exp(-((t * 3) % 1) * 12) * random.nextGaussian();
      samples[i] =
          (float) (0.12 * chord * (1 + Math.sin(t)) + 0.2 * stroke + 0.01 * random.nextGaussian());
    }
    return samples;
  }

  private double[] errors(float[] tune) {
    Path file = folder.resolve("tune.m4a");
    try (FileMixWriter writer =
        FileMixWriter.ofSound(FileHead.plain(file, RATE, 256), OutputFormat.AAC)) {
      for (int at = 0; at < tune.length; at += 5_000) {
        int n = Math.min(5_000, tune.length - at);
        float[] part = java.util.Arrays.copyOfRange(tune, at, at + n);
        writer.write(part, part, n);
      }
      writer.finish();
    }
    SampleSource back = open(file);
    assertThat(back.lengthFrames()).isBetween((long) tune.length, tune.length + 1_024L);
    float[] decoded = read(back, 0, tune.length);
    double[] errors = new double[tune.length / 256];
    for (int i = 0; i < errors.length; i++) {
      for (int k = i * 256; k < (i + 1) * 256; k++) {
        errors[i] += (decoded[k] - tune[k]) * (double) (decoded[k] - tune[k]) / 256;
      }
    }
    return errors;
  }

  @Test
  void nowhereIsTheErrorLargerThanACodecsOwn() {
    double[] errors = errors(tune());
    double[] sorted = errors.clone();
    java.util.Arrays.sort(sorted);
    double usual = sorted[(int) (sorted.length * 0.99)];
    for (int segment = 1; segment * 375 * 1024 < SECONDS * RATE; segment++) {
      int seam = (segment * 375) * 1024 / 256;
      for (int i = seam - 24; i < Math.min(errors.length, seam + 24); i++) {
        assertThat(errors[i]).as("at %.3f s", i * 256.0 / RATE).isLessThanOrEqualTo(4 * usual);
      }
    }
  }

  @Test
  void aLengthThatFillsWholeSegmentsOrHardlyAFrameIsKept() {
    for (int length : new int[] {100, 1024, 391 * 1024, 391 * 1024 + 500, 766 * 1024}) {
      Path file = folder.resolve("short.m4a");
      try (FileMixWriter writer =
          FileMixWriter.ofSound(FileHead.plain(file, RATE, 256), OutputFormat.AAC)) {
        float[] samples = sine(440, 0.4, length);
        writer.write(samples, samples, length);
        writer.finish();
      }
      assertThat(open(file).lengthFrames())
          .as("%d", length)
          .isBetween((long) length, length + 1_024L);
    }
  }

  @Test
  void endingItHalfWayLeavesNothingBehind() {
    Path file = folder.resolve("ended.m4a");
    try (FileMixWriter writer =
        FileMixWriter.ofSound(FileHead.plain(file, RATE, 256), OutputFormat.AAC)) {
      float[] samples = sine(440, 0.4, RATE);
      for (int i = 0; i < 60; i++) {
        writer.write(samples, samples, RATE);
      }
    }
    assertThat(file).doesNotExist();
    assertThat(
            Thread.getAllStackTraces().keySet().stream()
                .filter(t -> t.getName().startsWith("hushrise-encode-") && t.isAlive())
                .filter(t -> t.getState() == Thread.State.RUNNABLE))
        .isEmpty();
  }
}

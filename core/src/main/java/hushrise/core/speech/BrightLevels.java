package hushrise.core.speech;

import hushrise.core.sound.SampleSource;

/**
 * How loud a sound is from step to step, bass counting less: levels are taken of the difference to
 * nearly all of the sample before.
 */
final class BrightLevels {

  private static final double EMPHASIS = 0.95;

  /** Adds what silence has, so that it has a level. */
  private static final double LEAST_POWER = 1e-10;

  private final SampleSource source;

  BrightLevels(SampleSource source) {
    this.source = source;
  }

  /**
   * RMS levels in dB of all channels together, -100 at least, one for each step.
   *
   * @param fromFrame where the first step begins
   * @param stepFrames how long each is
   * @param steps how many
   */
  double[] of(long fromFrame, int stepFrames, int steps) {
    float[][] channels = new float[2][stepFrames];
    float[] before = new float[source.channels()];
    double[] levels = new double[steps];
    for (int s = 0; s < steps; s++) {
      source.read(fromFrame + (long) s * stepFrames, stepFrames, channels[0], channels[1], 0);
      double sum = 0;
      for (int c = 0; c < before.length; c++) {
        sum += brightEnergy(channels[c], before[c]);
        before[c] = channels[c][stepFrames - 1];
      }
      levels[s] = 10 * Math.log10(sum / (before.length * (double) stepFrames) + LEAST_POWER);
    }
    return levels;
  }

  private static double brightEnergy(float[] samples, float before) {
    double first = samples[0] - EMPHASIS * before;
    double sum = first * first;
    for (int i = 1; i < samples.length; i++) {
      double bright = samples[i] - EMPHASIS * samples[i - 1];
      sum += bright * bright;
    }
    return sum;
  }
}

package hushrise.core.record;

import hushrise.core.Problem;

/**
 * Finds how much later than it sounded a sound arrives: a rising tone is played, and looked for in
 * what was recorded by its correlation with it, whose highest value tells the place to the sample
 * (matched filter: Turin, <i>An introduction to matched filters</i>, 1960). A rising tone has one
 * sharp peak of correlation and is found far under the noise.
 */
public final class LatencyCheck {

  /** How long the tone is. */
  public static final double SECONDS = 0.2;

  /** The longest latency that is looked for. */
  public static final double MOST_SECONDS = 1;

  private static final double FROM_HZ = 400;
  private static final double TO_HZ = 6_000;
  private static final double LEAST_PROMINENCE = 6;

  private LatencyCheck() {}

  /** The tone, at half of full scale. */
  public static float[] tone(int sampleRate) {
    int count = (int) (SECONDS * sampleRate);
    float[] tone = new float[count];
    for (int i = 0; i < count; i++) {
      double t = i / (double) sampleRate;
      double phase = 2 * Math.PI * (FROM_HZ * t + (TO_HZ - FROM_HZ) * t * t / (2 * SECONDS));
      double window = Math.min(1, Math.min(i, count - 1 - i) / (0.005 * sampleRate));
      tone[i] = (float) (0.5 * window * Math.sin(phase));
    }
    return tone;
  }

  /**
   * The latency in frames.
   *
   * @param recorded what was recorded, beginning with what arrived when the tone's first sample
   *     sounded; a second longer than the tone
   * @throws Problem when the tone is not in it
   */
  public static long frames(float[] recorded, int sampleRate) {
    float[] tone = tone(sampleRate);
    int places = Math.max(0, recorded.length - tone.length);
    double best = 0;
    int at = 0;
    double squares = 0;
    for (int place = 0; place < places; place++) {
      double sum = 0;
      for (int i = 0; i < tone.length; i++) {
        sum += recorded[place + i] * tone[i];
      }
      squares += sum * sum;
      if (Math.abs(sum) > best) {
        best = Math.abs(sum);
        at = place;
      }
    }
    double usual = Math.sqrt(squares / Math.max(1, places));
    if (!(best > LEAST_PROMINENCE * usual)) {
      throw new Problem(
          "The tone was not heard by the microphone: turn the loudspeaker up, hold the microphone near it, and check again.");
    }
    return at;
  }
}

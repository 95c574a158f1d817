package hushrise.core.speech;

import hushrise.core.time.Span;
import java.util.BitSet;
import java.util.List;

/** From which level on sound passes for a word by its loudness, in a recording of a voice. */
final class LoudWords {

  /** So far under a recording's louder speech its softer words lie. */
  private static final double UNDER_SPEECH_DB = 15;

  /** So far under that it has to be where nobody speaks, or loudness says nothing about words. */
  private static final double QUIET_DB = 12;

  /** So near to speech it is not yet quiet. */
  private static final int NEAR_SPEECH_STEPS = 6;

  private LoudWords() {}

  /**
   * The level in dB from which on something is as loud as words are; infinity in a recording that
   * is not quiet between them.
   *
   * @param levelsDb how loud the recording is from step to step
   * @param speech in which steps somebody surely speaks; not empty
   */
  static double gateDb(double[] levelsDb, List<Span> speech) {
    BitSet spoken = new BitSet();
    BitSet near = new BitSet();
    for (Span span : speech) {
      int start = (int) span.startFrame();
      int end = (int) span.endFrame();
      spoken.set(start, end);
      near.set(Math.max(0, start - NEAR_SPEECH_STEPS), end + NEAR_SPEECH_STEPS);
    }
    double gate = part(levelsDb, spoken, 0.7) - UNDER_SPEECH_DB;
    near.flip(0, levelsDb.length);
    boolean quiet = part(levelsDb, near, 0.25) <= gate - QUIET_DB;
    return quiet ? gate : Double.POSITIVE_INFINITY;
  }

  /** The level under which a part of the chosen steps lies; the lowest where there are none. */
  private static double part(double[] levelsDb, BitSet chosen, double part) {
    double[] sorted =
        chosen.stream()
            .filter(i -> i < levelsDb.length)
            .mapToDouble(i -> levelsDb[i])
            .sorted()
            .toArray();
    return sorted.length == 0 ? Double.NEGATIVE_INFINITY : sorted[(int) (sorted.length * part)];
  }
}

package hushrise.core.loudness;

import java.util.Arrays;

/**
 * Loudness of a programme as it streams by: momentary and short-term (EBU Tech 3341), gated
 * integrated (ITU-R BS.1770-5), and loudness range (EBU Tech 3342).
 *
 * <p>K-weighted energy is gathered in steps of 10 ms. Momentary is the mean of the last 40 steps,
 * short-term of the last 300, both looked at every step, so that their maxima do not depend on
 * where a sound begins. Gating blocks are 400 ms long and start every 100 ms; the range uses a
 * short-term value every 100 ms.
 */
public final class LoudnessMeter {

  private static final int STEPS_PER_SECOND = 100;
  private static final int MOMENTARY_STEPS = 40;
  private static final int SHORT_TERM_STEPS = 300;
  private static final int HOP_STEPS = 10;
  private static final double ABSOLUTE_GATE_LUFS = -70;

  private final int sampleRate;
  private final double[] weights;
  private final KWeighting[] filters;
  private final double[] squares = new double[2];
  private final double[] steps = new double[SHORT_TERM_STEPS];
  private double[] blocks = new double[256];
  private double[] shortTerms = new double[256];
  private int blockCount;
  private int shortTermCount;
  private long stepCount;
  private int framesInStep;
  private int stepFrames;
  private double stepSum;
  private double momentarySum;
  private double shortTermSum;
  private double momentary;
  private double shortTerm;
  private double maxMomentary;
  private double maxShortTerm;
  private double totalSum;
  private long totalFrames;

  /**
   * @param sampleRate in Hz, at least 1000
   * @param channelWeights one for each channel: 1 for left, right and centre, 1.41 for surrounds, 0
   *     for LFE
   */
  public LoudnessMeter(int sampleRate, double... channelWeights) {
    this.sampleRate = sampleRate;
    this.weights = channelWeights.clone();
    this.filters = new KWeighting[weights.length];
    Arrays.setAll(filters, i -> new KWeighting(sampleRate));
    this.stepFrames = lengthOfStep(0);
  }

  /** A meter for mono or stereo. */
  public static LoudnessMeter forChannels(int sampleRate, int channels) {
    return new LoudnessMeter(sampleRate, evenWeights(channels));
  }

  static double[] evenWeights(int channels) {
    double[] weights = new double[channels];
    Arrays.fill(weights, 1);
    return weights;
  }

  private int lengthOfStep(long step) {
    return (int)
        ((step + 1) * sampleRate / STEPS_PER_SECOND - step * sampleRate / STEPS_PER_SECOND);
  }

  /**
   * Takes the next frames.
   *
   * @param planar at least as many arrays as channels, each with {@code offset + frames} samples
   */
  public void add(float[][] planar, int offset, int frames) {
    int done = 0;
    while (done < frames) {
      int n = Math.min(frames - done, stepFrames - framesInStep);
      if (weights.length == 2) {
        KWeighting.squares(filters[0], filters[1], planar[0], planar[1], offset + done, n, squares);
        stepSum += weights[0] * squares[0] + weights[1] * squares[1];
      } else {
        for (int c = 0; c < weights.length; c++) {
          stepSum += weights[c] * filters[c].squares(planar[c], offset + done, n);
        }
      }
      framesInStep += n;
      done += n;
      if (framesInStep == stepFrames) {
        closeStep();
      }
    }
    totalFrames += frames;
  }

  private void closeStep() {
    double energy = stepSum / stepFrames;
    totalSum += stepSum;
    momentarySum += energy - stepsAgo(MOMENTARY_STEPS);
    shortTermSum += energy - stepsAgo(SHORT_TERM_STEPS);
    steps[(int) (stepCount % SHORT_TERM_STEPS)] = energy;
    stepCount++;
    stepSum = 0;
    framesInStep = 0;
    stepFrames = lengthOfStep(stepCount);
    boolean hop = stepCount % HOP_STEPS == 0;
    if (hop) {
      momentarySum = sumOfLast(MOMENTARY_STEPS);
      shortTermSum = sumOfLast(SHORT_TERM_STEPS);
    }
    momentary = Math.max(0, momentarySum / MOMENTARY_STEPS);
    shortTerm = Math.max(0, shortTermSum / SHORT_TERM_STEPS);
    maxMomentary = Math.max(maxMomentary, momentary);
    maxShortTerm = Math.max(maxShortTerm, shortTerm);
    if (stepCount >= MOMENTARY_STEPS && hop) {
      blocks = push(blocks, blockCount++, momentary);
    }
    if (stepCount >= SHORT_TERM_STEPS && hop) {
      shortTerms = push(shortTerms, shortTermCount++, shortTerm);
    }
  }

  /** The energy of the step that leaves a window of {@code count} steps as the next one enters. */
  private double stepsAgo(int count) {
    return stepCount < count ? 0 : steps[(int) ((stepCount - count) % SHORT_TERM_STEPS)];
  }

  /** The exact sum at each hop, so that the running sums cannot drift. */
  private double sumOfLast(int count) {
    double sum = 0;
    int last = (int) ((stepCount - 1) % SHORT_TERM_STEPS);
    for (int i = 0, at = last; i < count; i++, at = at == 0 ? SHORT_TERM_STEPS - 1 : at - 1) {
      sum += steps[at];
    }
    return sum;
  }

  private static double[] push(double[] values, int count, double value) {
    double[] room = count == values.length ? Arrays.copyOf(values, count * 2) : values;
    room[count] = value;
    return room;
  }

  /** The loudness of a K-weighted mean square, in LUFS; minus infinity for silence. */
  static double lufs(double meanSquare) {
    return -0.691 + 10 * Math.log10(meanSquare);
  }

  static double meanSquare(double lufs) {
    return Math.pow(10, (lufs + 0.691) / 10);
  }

  /** The last 400 ms, in LUFS; what lies before the start counts as silence. */
  public double momentaryLufs() {
    return lufs(momentary);
  }

  /** The last 3 s, in LUFS; what lies before the start counts as silence. */
  public double shortTermLufs() {
    return lufs(shortTerm);
  }

  public double maxMomentaryLufs() {
    return lufs(maxMomentary);
  }

  public double maxShortTermLufs() {
    return lufs(maxShortTerm);
  }

  /**
   * Gated integrated loudness in LUFS (BS.1770-5 annex 1): the mean of the 400 ms blocks above -70
   * LUFS and above 10 LU under their own mean. Minus infinity when no block passes. A programme
   * shorter than one block is measured as a whole, without gates.
   */
  public double integratedLufs() {
    if (blockCount == 0) {
      return totalFrames == 0 ? Double.NEGATIVE_INFINITY : lufs((totalSum + stepSum) / totalFrames);
    }
    double absolute = meanAbove(blocks, blockCount, meanSquare(ABSOLUTE_GATE_LUFS));
    return lufs(
        meanAbove(blocks, blockCount, Math.max(absolute / 10, meanSquare(ABSOLUTE_GATE_LUFS))));
  }

  static double meanAbove(double[] values, int count, double gate) {
    double sum = 0;
    int passed = 0;
    for (int i = 0; i < count; i++) {
      if (values[i] > gate) {
        sum += values[i];
        passed++;
      }
    }
    return passed == 0 ? 0 : sum / passed;
  }

  /**
   * Loudness range in LU (EBU Tech 3342): from the 10th to the 95th percentile of the short-term
   * values above -70 LUFS and above 20 LU under their mean. 0 when the programme is shorter than 3
   * s or silent.
   */
  public double loudnessRangeLu() {
    return rangeLu(shortTerms, shortTermCount);
  }

  /** As {@link #loudnessRangeLu}, of energies of 3 s each, one every 100 ms. */
  static double rangeLu(double[] shortTerms, int shortTermCount) {
    double absoluteGate = meanSquare(ABSOLUTE_GATE_LUFS);
    double gate = Math.max(absoluteGate, meanAbove(shortTerms, shortTermCount, absoluteGate) / 100);
    double[] passed =
        Arrays.stream(shortTerms, 0, shortTermCount).filter(v -> v > gate).sorted().toArray();
    if (passed.length == 0) {
      return 0;
    }
    return lufs(passed[(int) Math.round((passed.length - 1) * 0.95)])
        - lufs(passed[(int) Math.round((passed.length - 1) * 0.10)]);
  }
}

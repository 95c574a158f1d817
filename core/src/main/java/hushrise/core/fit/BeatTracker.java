package hushrise.core.fit;

import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Finds the tempo and the beats in an onset-strength curve.
 *
 * <p>After D. Ellis, "Beat Tracking by Dynamic Programming", Journal of New Music Research 36
 * (2007): the tempo is the highest peak of the curve's autocorrelation, weighted towards moderate
 * tempi and supported by its multiples; the beats are the sequence of times that best joins high
 * onset strength with even spacing. Linear in the song's length.
 */
final class BeatTracker {

  /** How strictly beats keep to the tempo. */
  private static final double TIGHTNESS = 100;

  private static final double SHORTEST_SECONDS = 0.28;
  private static final double LONGEST_SECONDS = 1.3;
  private static final double USUAL_SECONDS = 0.5;
  private static final double SPREAD_OCTAVES = 0.75;

  /** Curves whose autocorrelation at the beat is weaker than this have no beat. */
  private static final double WEAKEST = 0.10;

  /**
   * Curves whose onsets at the beats stand out less than this, in standard deviations, have none.
   */
  private static final double FAINTEST = 2;

  private final float[] onset;
  private final double periodFrames;
  private final double strength;

  BeatTracker(float[] onset) {
    this.onset = onset;
    double[] correlation = autocorrelation(onset, (int) (4.2 * LONGEST_SECONDS * 100));
    int best = bestLag(correlation);
    periodFrames = refined(correlation, best);
    strength = correlation[0] == 0 ? 0 : correlation[best] / correlation[0];
  }

  private static double[] autocorrelation(float[] onset, int lags) {
    double mean = 0;
    for (float value : onset) {
      mean += value / onset.length;
    }
    float[] centred = new float[onset.length];
    for (int t = 0; t < onset.length; t++) {
      centred[t] = (float) (onset[t] - mean);
    }
    double[] result = new double[lags];
    for (int lag = 0; lag < lags && lag < centred.length; lag++) {
      float sum = 0;
      for (int t = lag; t < centred.length; t++) {
        sum += centred[t] * centred[t - lag];
      }
      result[lag] = sum / (centred.length - lag);
    }
    return result;
  }

  private static int bestLag(double[] correlation) {
    int from = (int) (SHORTEST_SECONDS * Spectrogram.PER_SECOND);
    int to = (int) (LONGEST_SECONDS * Spectrogram.PER_SECOND);
    int best = from;
    double bestScore = Double.NEGATIVE_INFINITY;
    for (int lag = from; lag <= to; lag++) {
      double octaves =
          Math.log(lag / (USUAL_SECONDS * Spectrogram.PER_SECOND)) / Math.log(2) / SPREAD_OCTAVES;
      double support =
          around(correlation, lag)
              + 0.5 * around(correlation, 2 * lag)
              + 0.25 * around(correlation, 3 * lag)
              + 0.25 * around(correlation, 4 * lag);
      double score = support * Math.exp(-0.5 * octaves * octaves);
      if (score > bestScore) {
        bestScore = score;
        best = lag;
      }
    }
    return best;
  }

  /** The highest value at or next to a lag, as a multiple of a period seldom falls on a frame. */
  private static double around(double[] values, int lag) {
    double highest = Double.NEGATIVE_INFINITY;
    int slack = 1 + lag / 100;
    for (int i = Math.max(0, lag - slack); i <= Math.min(values.length - 1, lag + slack); i++) {
      highest = Math.max(highest, values[i]);
    }
    return Double.isFinite(highest) ? highest : 0;
  }

  private static double refined(double[] values, int lag) {
    if (lag < 1 || lag + 1 >= values.length) {
      return lag;
    }
    double bend = values[lag - 1] - 2 * values[lag] + values[lag + 1];
    double offset = bend == 0 ? 0 : 0.5 * (values[lag - 1] - values[lag + 1]) / bend;
    return lag + Math.clamp(offset, -0.5, 0.5);
  }

  double periodSeconds() {
    return periodFrames / Spectrogram.PER_SECOND;
  }

  /** The beats as places in the onset curve, in order; empty when there is no beat. */
  double[] beats() {
    if (strength < WEAKEST || onset.length < 4 * periodFrames) {
      return new double[0];
    }
    int[] path = bestPath(smoothed());
    double[] beats = new double[path.length];
    for (int i = 0; i < path.length; i++) {
      beats[i] = peakNear(path[i]);
    }
    return contrast(path) < FAINTEST ? new double[0] : beats;
  }

  private double contrast(int[] path) {
    double mean = 0;
    for (float value : onset) {
      mean += value / onset.length;
    }
    double atBeats = 0;
    for (int beat : path) {
      atBeats += highestNear(beat) / path.length;
    }
    return atBeats - mean;
  }

  private double highestNear(int frame) {
    double highest = 0;
    for (int t = Math.max(0, frame - 2); t <= Math.min(onset.length - 1, frame + 2); t++) {
      highest = Math.max(highest, onset[t]);
    }
    return highest;
  }

  private float[] smoothed() {
    double sigma = Math.max(1, periodFrames / 32);
    int reach = (int) Math.ceil(3 * sigma);
    float[] result = new float[onset.length];
    for (int t = 0; t < onset.length; t++) {
      double sum = 0;
      for (int k = Math.max(-reach, -t); k <= reach && t + k < onset.length; k++) {
        sum += onset[t + k] * Math.exp(-0.5 * k * k / (sigma * sigma));
      }
      result[t] = (float) sum;
    }
    return result;
  }

  private int[] bestPath(float[] local) {
    int n = local.length;
    double[] total = new double[n];
    int[] before = new int[n];
    int nearest = (int) Math.max(1, Math.round(periodFrames / 2));
    int farthest = (int) Math.round(periodFrames * 2);
    double[] penalty = new double[farthest + 1];
    for (int gap = nearest; gap <= farthest; gap++) {
      double bend = Math.log(gap / periodFrames);
      penalty[gap] = TIGHTNESS * bend * bend;
    }
    for (int t = 0; t < n; t++) {
      double best = 0;
      before[t] = -1;
      for (int gap = nearest; gap <= farthest && gap <= t; gap++) {
        double candidate = total[t - gap] - penalty[gap];
        if (candidate > best) {
          best = candidate;
          before[t] = t - gap;
        }
      }
      total[t] = local[t] + best;
    }
    return backtrace(total, before);
  }

  private int[] backtrace(double[] total, int[] before) {
    int last = total.length - 1;
    for (int t = total.length - 1;
        t >= Math.max(0, total.length - 1 - (int) (1.5 * periodFrames));
        t--) {
      if (total[t] > total[last]) {
        last = t;
      }
    }
    Deque<Integer> path = new ArrayDeque<>();
    for (int t = last; t >= 0; t = before[t]) {
      path.addFirst(t);
    }
    return path.stream().mapToInt(Integer::intValue).toArray();
  }

  private double peakNear(int frame) {
    int peak = frame;
    for (int t = Math.max(1, frame - 2); t <= Math.min(onset.length - 2, frame + 2); t++) {
      peak = onset[t] > onset[peak] ? t : peak;
    }
    if (peak < 1 || peak > onset.length - 2) {
      return frame;
    }
    double bend = onset[peak - 1] - 2 * onset[peak] + onset[peak + 1];
    double offset = bend >= 0 ? 0 : 0.5 * (onset[peak - 1] - onset[peak + 1]) / bend;
    return peak + Math.clamp(offset, -0.5, 0.5);
  }
}

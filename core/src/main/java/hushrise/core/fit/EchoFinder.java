package hushrise.core.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Finds where a song is like itself along all lags of its self-similarity (J. Foote, "Visualizing
 * Music and Audio using Self-Similarity", 1999; M. Goto, "A Chorus Section Detection Method for
 * Musical Audio Signals", 2006, for the view along lags).
 *
 * <p>Three views of the sound are joined: levels of frequency bands, pitch classes and onsets. Two
 * places are compared over 1.5 s on both sides, what lies within 0.4 s counting more. Beats take no
 * part in it, so that music without a steady one does as well as its repeats allow.
 */
final class EchoFinder {

  /** Onset frames that one moment joins: 50 ms; more of them in very long music. */
  private static final int JOINED = 5;

  private static final int MOST_MOMENTS = 7_000;
  private static final int BANDS = Spectrogram.BANDS / 2;
  private static final int VIEWS = BANDS + Spectrogram.PITCHES + 1;
  private static final float QUIETEST_DB = -50;
  private static final double FAR_SECONDS = 1.5;
  private static final double NEAR_SECONDS = 0.4;
  private static final double SHORTEST_SECONDS = 1;
  private static final double APART_SECONDS = 2;
  private static final int EACH_LAG = 3;
  private static final int SAMPLED = 97;

  private final int perSecond;
  private final float[][] moments;
  private final int first;
  private final int last;
  private final int far;
  private final int near;

  private EchoFinder(Spectrogram spectra, int firstFrame, int lastFrame) {
    int joined = JOINED * (spectra.frames() / JOINED / MOST_MOMENTS + 1);
    perSecond = Spectrogram.PER_SECOND / joined;
    moments = new float[spectra.frames() / joined][];
    for (int m = 0; m < moments.length; m++) {
      moments[m] = moment(spectra, m * joined, joined);
    }
    first = Math.min(firstFrame / joined, moments.length);
    last = Math.min(lastFrame / joined, moments.length);
    far = (int) Math.round(FAR_SECONDS * perSecond);
    near = Math.max(1, (int) Math.round(NEAR_SECONDS * perSecond));
  }

  /**
   * The echoes of a song.
   *
   * @param firstFrame the onset frame with which it begins to sound
   * @param lastFrame the onset frame with which it has ended
   */
  static Echoes of(Spectrogram spectra, int firstFrame, int lastFrame) {
    return new EchoFinder(spectra, firstFrame, lastFrame).find();
  }

  private static float[] moment(Spectrogram spectra, int from, int joined) {
    float[] view = new float[VIEWS];
    float onset = 0;
    for (int t = from; t < from + joined; t++) {
      for (int b = 0; b < Spectrogram.BANDS; b++) {
        view[b / 2] += Math.max(spectra.bands()[t][b], QUIETEST_DB) / (2 * joined * 10);
      }
      onset = Math.max(onset, spectra.onset()[t]);
    }
    int at = Math.min(from / Spectrogram.CHROMA_EVERY, spectra.chroma().length - 1);
    float[] chroma = spectra.chroma()[at];
    double square = 1e-9;
    for (float x : chroma) {
      square += x * x;
    }
    float scale = (float) (1.2 / Math.sqrt(square));
    for (int p = 0; p < Spectrogram.PITCHES; p++) {
      view[BANDS + p] = chroma[p] * scale;
    }
    view[VIEWS - 1] = Math.min(onset, 6) / 3;
    return view;
  }

  private Echoes find() {
    int shortest = (int) (SHORTEST_SECONDS * perSecond);
    List<int[]> found = new ArrayList<>();
    List<Float> distances = new ArrayList<>();
    float[] sampled = new float[1 << 16];
    int samples = 0;
    long seen = 0;
    double[] sums = new double[moments.length + 1];
    float[] along = new float[moments.length];
    for (int lag = shortest; lag < last - first - shortest; lag++) {
      int n = last - first - lag;
      for (int i = 0; i < n; i++) {
        sums[i + 1] = sums[i] + between(moments[first + i], moments[first + i + lag]);
      }
      for (int i = shortest / 2; i < n - shortest / 2; i++) {
        along[i] = joined(sums, i, n);
        if (seen++ % SAMPLED == 0 && samples < sampled.length) {
          sampled[samples++] = along[i];
        }
      }
      nearest(along, shortest / 2, n - shortest / 2, lag, found, distances);
    }
    return new Echoes(
        perSecond,
        found.stream().mapToInt(e -> e[0]).toArray(),
        found.stream().mapToInt(e -> e[1]).toArray(),
        floats(distances),
        usual(Arrays.copyOf(sampled, samples)));
  }

  private static float[] floats(List<Float> values) {
    float[] result = new float[values.size()];
    for (int i = 0; i < result.length; i++) {
      result[i] = values.get(i);
    }
    return result;
  }

  private static float between(float[] a, float[] b) {
    float sum = 0;
    for (int i = 0; i < VIEWS; i++) {
      float step = a[i] - b[i];
      sum += step * step;
    }
    return sum;
  }

  /** The distance around a place: over what lies near and what lies further off. */
  private float joined(double[] sums, int i, int n) {
    return (float) Math.sqrt(0.6 * mean(sums, i, far, n) + 0.4 * mean(sums, i, near, n));
  }

  private static double mean(double[] sums, int i, int half, int n) {
    int from = Math.max(0, i - half);
    int to = Math.min(n, i + half);
    return (sums[to] - sums[from]) / (to - from);
  }

  /** The nearest places of a lag, some seconds from one another. */
  private void nearest(
      float[] along, int from, int to, int lag, List<int[]> found, List<Float> distances) {
    int apart = (int) (APART_SECONDS * perSecond);
    int begun = found.size();
    for (int taken = 0; taken < EACH_LAG; taken++) {
      int best = -1;
      for (int i = from; i < to; i++) {
        if ((best < 0 || along[i] < along[best]) && isApart(found, begun, first + i, apart)) {
          best = i;
        }
      }
      if (best < 0) {
        return;
      }
      found.add(new int[] {lag, first + best});
      distances.add(along[best]);
    }
  }

  private static boolean isApart(List<int[]> found, int begun, int place, int apart) {
    for (int i = begun; i < found.size(); i++) {
      if (Math.abs(found.get(i)[1] - place) < apart) {
        return false;
      }
    }
    return true;
  }

  private static float[] usual(float[] sampled) {
    Arrays.sort(sampled);
    float[] usual = new float[Echoes.PARTS.length];
    for (int i = 0; i < usual.length; i++) {
      int at = (int) Math.round(Echoes.PARTS[i] * (sampled.length - 1));
      usual[i] = sampled.length == 0 ? 0 : sampled[at];
    }
    return usual;
  }
}

package hushrise.core.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.ToDoubleFunction;

/**
 * Finds where a song is like itself along all lags of its self-similarity (J. Foote, "Visualizing
 * Music and Audio using Self-Similarity", 1999; M. Goto, "A Chorus Section Detection Method for
 * Musical Audio Signals", 2006, for the view along lags).
 *
 * <p>Four views of the sound are joined: levels of frequency bands, those of the bass by half
 * octaves, as its notes carry the harmony, pitch classes and onsets. Two places are compared over
 * 1.5 s on both sides, what lies within 0.4 s counting more. Beats take no part in it, so that
 * music without a steady one does as well as its repeats allow.
 */
final class EchoFinder {

  /** Onset frames that one moment joins: 50 ms; more of them in very long music. */
  private static final int JOINED = 5;

  private static final int MOST_MOMENTS = 7_000;

  /** Two bands joined each; the lowest, up to 155 Hz, give way to those of the bass. */
  private static final int BANDS = Spectrogram.BANDS / 2 - 1;

  private static final int LEVELS = BANDS + Spectrogram.BASS_BANDS;
  private static final int VIEWS = LEVELS + Spectrogram.PITCHES + 1;
  private static final double FAR_SECONDS = 1.5;
  private static final double NEAR_SECONDS = 0.4;

  /** How much what lies near counts against what lies within the far reach. */
  private static final double NEAR_SHARE = 0.4;

  /** What differing in all pitch classes, and in an onset of one deviation, weighs in dB. */
  private static final float DB_OF_CHROMA = 4.2f;

  private static final float DB_OF_ONSET = 0.5f;

  /** What a step in level weighs, beside what it does to each band. */
  private static final double SHARE_OF_STEP = 0.6;

  /** From where on a step in level weighs more, as it cannot be evened. */
  private static final double EVENABLE_DB = 1.5;

  private static final double SHARE_BEYOND = 2;

  /** An echo is a shoulder of another one when that lies this near and is this much nearer. */
  private static final int SHOULDER_LAGS = 3;

  private static final double SHOULDER = 0.75;

  private static final double LEVEL_SECONDS = 2;
  private static final double REST_SECONDS = 3;
  private static final double SHORTEST_SECONDS = 1;
  private static final double APART_SECONDS = 2;
  private static final int EACH_LAG = 5;
  private static final int SAMPLED = 97;

  private record Echo(float lag, int place, float distance) {}

  private final int perSecond;

  /** Each view along time, weighted so that differences are in dB. */
  private final float[][] views;

  /** The level of what follows each moment in dB. */
  private final float[] level;

  private final int first;
  private final int last;
  private final int far;
  private final int near;

  /** How much of the song has to come after a place. */
  private final int rest;

  private EchoFinder(Spectrogram spectra, int firstFrame, int lastFrame) {
    int joined = JOINED * (spectra.frames() / JOINED / MOST_MOMENTS + 1);
    perSecond = Spectrogram.PER_SECOND / joined;
    int moments = spectra.frames() / joined;
    views = new float[VIEWS][moments];
    double[] powers = new double[moments + 1];
    for (int m = 0; m < moments; m++) {
      powers[m + 1] = powers[m] + view(spectra, m, joined);
    }
    level = new float[moments];
    int ahead = (int) (LEVEL_SECONDS * perSecond);
    for (int m = 0; m < moments; m++) {
      int to = Math.min(m + ahead, moments);
      level[m] = (float) (10 * Math.log10((powers[to] - powers[m]) / (to - m) + 1e-9));
    }
    first = Math.min(firstFrame / joined, moments);
    last = Math.min(lastFrame / joined, moments);
    far = (int) Math.min(Math.round(FAR_SECONDS * perSecond), (last - first) / 8);
    rest = (int) Math.min(Math.round(REST_SECONDS * perSecond), (last - first) / 8);
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

  /**
   * How far two places are apart.
   *
   * @param place of the earlier one, in seconds
   * @param lag how much later the other one is
   */
  static double distance(Spectrogram spectra, double place, double lag) {
    EchoFinder finder = new EchoFinder(spectra, 0, spectra.frames());
    int lagged = (int) Math.round(lag * finder.perSecond);
    int n = finder.last - lagged;
    float[] along = new float[n];
    finder.compare(lagged, n, along);
    double[] sums = new double[n + 1];
    for (int i = 0; i < n; i++) {
      sums[i + 1] = sums[i] + along[i];
    }
    return finder.joined(sums, (int) Math.round(place * finder.perSecond), lagged);
  }

  /** Takes down how a moment sounds; returns its power. */
  private double view(Spectrogram spectra, int moment, int joined) {
    float onset = 0;
    double power = 0;
    int from = moment * joined;
    for (int t = from; t < from + joined; t++) {
      for (int b = 0; b < Spectrogram.BANDS; b++) {
        float db = spectra.bands()[t][b];
        if (b > 1) {
          views[b / 2 - 1][moment] += db / (2 * joined * LEVELS);
        }
        power += Math.pow(10, db / 10) / joined;
      }
      onset = Math.max(onset, spectra.onset()[t]);
    }
    int at = Math.min(from / Spectrogram.CHROMA_EVERY, spectra.chroma().length - 1);
    float[] chroma = spectra.chroma()[at];
    double square = 1e-9;
    for (float x : chroma) {
      square += x * x;
    }
    for (int b = 0; b < Spectrogram.BASS_BANDS; b++) {
      views[BANDS + b][moment] = spectra.bass()[at][b] / LEVELS;
    }
    float scale = (float) (DB_OF_CHROMA / Math.sqrt(square));
    for (int p = 0; p < Spectrogram.PITCHES; p++) {
      views[LEVELS + p][moment] = chroma[p] * scale;
    }
    views[VIEWS - 1][moment] = DB_OF_ONSET * Math.min(onset, 6);
    return power;
  }

  private Echoes find() {
    int shortest = (int) (SHORTEST_SECONDS * perSecond);
    List<Echo> found = new ArrayList<>();
    float[] sampled = new float[1 << 16];
    int samples = 0;
    long seen = 0;
    double[] sums = new double[level.length + 1];
    float[][] alongs = new float[2 * SHOULDER_LAGS + 1][level.length];
    int end = last - first - far - rest;
    for (int lag = shortest; lag < end + SHOULDER_LAGS; lag++) {
      float[] along = alongs[lag % alongs.length];
      int n = Math.max(0, last - first - lag);
      compare(lag, n, along);
      for (int i = 0; i < n; i++) {
        sums[i + 1] = sums[i] + along[i];
      }
      Arrays.fill(along, 0, Math.min(far, n), Float.MAX_VALUE);
      Arrays.fill(along, Math.max(0, n - rest), along.length, Float.MAX_VALUE);
      for (int i = far; i < n - rest; i++) {
        along[i] = joined(sums, i, lag);
        if (seen++ % SAMPLED == 0 && samples < sampled.length) {
          sampled[samples++] = along[i];
        }
      }
      int done = lag - SHOULDER_LAGS;
      if (done >= shortest) {
        nearest(alongs, done, Math.max(shortest, done - SHOULDER_LAGS), lag, found);
      }
    }
    return new Echoes(
        perSecond,
        floats(found, Echo::lag),
        found.stream().mapToInt(Echo::place).toArray(),
        floats(found, Echo::distance),
        usual(Arrays.copyOf(sampled, samples)));
  }

  /** How far each moment is from the one that comes a lag later. */
  private void compare(int lag, int n, float[] into) {
    Arrays.fill(into, 0, n, 0);
    for (float[] view : views) {
      for (int i = 0; i < n; i++) {
        into[i] += Math.abs(view[first + i] - view[first + i + lag]);
      }
    }
  }

  /** The distance around a place: over what lies near and what lies further off, and in level. */
  private float joined(double[] sums, int i, int lag) {
    double step = Math.abs(level[first + i] - level[first + i + lag]);
    return (float)
        ((1 - NEAR_SHARE) * mean(sums, i, far)
            + NEAR_SHARE * mean(sums, i, Math.min(near, far))
            + SHARE_OF_STEP * step
            + SHARE_BEYOND * Math.max(0, step - EVENABLE_DB));
  }

  private static double mean(double[] sums, int i, int half) {
    return (sums[i + half] - sums[i - half]) / (2 * half);
  }

  private static float[] floats(List<Echo> found, ToDoubleFunction<Echo> value) {
    float[] result = new float[found.size()];
    for (int i = 0; i < result.length; i++) {
      result[i] = (float) value.applyAsDouble(found.get(i));
    }
    return result;
  }

  /** The nearest places of a lag, some seconds from one another; shoulders are left out. */
  private void nearest(float[][] alongs, int lag, int firstLag, int lastLag, List<Echo> found) {
    float[] along = alongs[lag % alongs.length];
    int apart = (int) (APART_SECONDS * perSecond);
    int begun = found.size();
    int to = last - first - lag - rest;
    for (int taken = 0; taken < EACH_LAG; taken++) {
      int best = -1;
      for (int i = far; i < to; i++) {
        if ((best < 0 || along[i] < along[best]) && isApart(found, begun, first + i, apart)) {
          best = i;
        }
      }
      if (best < 0) {
        break;
      }
      double shift = lag > firstLag && lag < lastLag ? shift(alongs, lag, best) : 0;
      found.add(new Echo((float) (lag + shift), first + best, along[best]));
    }
    for (int e = found.size() - 1; e >= begun; e--) {
      if (isShoulder(alongs, found.get(e), firstLag, lastLag)) {
        found.remove(e);
      }
    }
  }

  /** Where between its neighbours a lag is nearest, by the parabola through all three. */
  private static double shift(float[][] alongs, int lag, int i) {
    double before = alongs[(lag - 1) % alongs.length][i];
    double here = alongs[lag % alongs.length][i];
    double after = alongs[(lag + 1) % alongs.length][i];
    boolean lowest = here < before && here < after && Math.max(before, after) < Float.MAX_VALUE;
    return lowest ? Math.clamp((before - after) / 2 / (before - 2 * here + after), -0.5, 0.5) : 0;
  }

  private boolean isShoulder(float[][] alongs, Echo echo, int firstLag, int lastLag) {
    int place = echo.place() - first;
    for (int lag = firstLag; lag <= lastLag; lag++) {
      float[] along = alongs[lag % alongs.length];
      for (int i = place - 2; i <= place + 2; i++) {
        if (along[i] < SHOULDER * echo.distance()) {
          return true;
        }
      }
    }
    return false;
  }

  private static boolean isApart(List<Echo> found, int begun, int place, int apart) {
    for (int i = begun; i < found.size(); i++) {
      if (Math.abs(found.get(i).place() - place) < apart) {
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

package hushrise.core.fit;

import hushrise.core.Decibels;
import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.util.ArrayList;
import java.util.List;

/**
 * Listens through a song once: beats, and per stretch between beats chroma, timbre, rhythm and
 * level.
 */
public final class SongAnalyzer {

  /** The stretches of songs without a beat, in seconds. */
  private static final double TEXTURE_SECONDS = 0.25;

  private static final double SILENCE_DB = -60;
  private static final int COEFFICIENTS = 12;
  private static final int QUARTERS = 4;
  private static final int MOST_STRETCHES = 2_400;

  private final SampleSource source;
  private final int sampleRate;
  private final String name;

  private SongAnalyzer(SampleSource source, int sampleRate, String name) {
    this.source = source;
    this.sampleRate = sampleRate;
    this.name = name;
  }

  /**
   * Analyses a song.
   *
   * @param name what a person knows it as, for what is said when it does not serve
   * @throws Problem when it is shorter than a second or silent
   */
  public static SongAnalysis analyze(
      SampleSource source, int sampleRate, String name, Progress progress) {
    return new SongAnalyzer(source, sampleRate, name).analyze(progress);
  }

  private SongAnalysis analyze(Progress progress) {
    if (source.lengthFrames() < sampleRate) {
      throw new Problem(
          "The music %s is shorter than a second: choose a longer piece.".formatted(name));
    }
    MonoReader mono = new MonoReader(source, sampleRate);
    float[] levels = levels(mono);
    int[] sounding = soundingFrames(levels);
    Spectrogram spectra = Spectrogram.of(mono, progress);
    BeatTracker tracker = new BeatTracker(spectra.onset());
    double[] beats = tracker.beats();
    long[] edges = edges(beats, tracker.periodSeconds(), sounding);
    boolean hasBeat = beats.length > 0;
    int n = edges.length - 1;
    float[][] chroma = new float[n][];
    float[][] timbre = new float[n][];
    float[][] rhythm = new float[n][];
    float[] level = new float[n];
    for (int i = 0; i < n; i++) {
      double from = edges[i] / (double) sampleRate;
      double to = edges[i + 1] / (double) sampleRate;
      chroma[i] = chroma(spectra, from, to);
      timbre[i] = timbre(spectra, from, to);
      rhythm[i] = rhythm(spectra, from, to);
      level[i] = level(levels, from, to);
    }
    standardise(timbre);
    Meter meter = Meter.of(chroma, rhythm);
    progress.at(1);
    return new SongAnalysis(
        sampleRate,
        source.lengthFrames(),
        edges,
        hasBeat ? medianStretch(edges) / (double) sampleRate : 0,
        meter.beatsPerBar(),
        meter.firstBar(),
        chroma,
        timbre,
        rhythm,
        level,
        EchoFinder.of(spectra, sounding[0], sounding[1]));
  }

  private static long medianStretch(long[] edges) {
    long[] lengths = new long[edges.length - 1];
    for (int i = 0; i < lengths.length; i++) {
      lengths[i] = edges[i + 1] - edges[i];
    }
    java.util.Arrays.sort(lengths);
    return lengths[lengths.length / 2];
  }

  /** Mean squares every 10 ms. */
  private static float[] levels(MonoReader mono) {
    int hop = mono.rate() / Spectrogram.PER_SECOND;
    float[] samples = new float[hop];
    float[] levels = new float[(int) (mono.length() / hop) + 1];
    for (int t = 0; t < levels.length; t++) {
      mono.window((long) t * hop, samples, hop);
      float sum = 0;
      for (float x : samples) {
        sum += x * x;
      }
      levels[t] = sum / hop;
    }
    return levels;
  }

  /** The first and the frame after the last that is not 60 dB under the loudest. */
  private int[] soundingFrames(float[] levels) {
    double loudest = 0;
    for (float level : levels) {
      loudest = Math.max(loudest, level);
    }
    if (Decibels.ofFactor(Math.sqrt(loudest)) < -70) {
      throw new Problem("The music %s is silent: choose another piece.".formatted(name));
    }
    double gate = loudest * Math.pow(10, SILENCE_DB / 10);
    int first = 0;
    while (levels[first] < gate) {
      first++;
    }
    int last = levels.length;
    while (levels[last - 1] < gate) {
      last--;
    }
    return new int[] {first, last};
  }

  private long[] edges(double[] beats, double period, int[] sounding) {
    long start = (long) sounding[0] * sampleRate / Spectrogram.PER_SECOND;
    long end =
        Math.min((long) sounding[1] * sampleRate / Spectrogram.PER_SECOND, source.lengthFrames());
    List<Double> inner = new ArrayList<>();
    if (beats.length > 0) {
      for (double beat : beats) {
        inner.add(Spectrogram.secondsOf(beat) * sampleRate);
      }
    } else {
      for (double at = start; at < end; at += TEXTURE_SECONDS * sampleRate) {
        inner.add(at);
      }
    }
    double gap = 0.4 * sampleRate * (beats.length > 0 ? period : TEXTURE_SECONDS);
    int every = inner.size() / MOST_STRETCHES + 1;
    List<Long> edges = new ArrayList<>(List.of(start));
    for (int i = 0; i < inner.size(); i += every) {
      double at = inner.get(i);
      if (at - start > gap && end - at > gap) {
        edges.add(Math.round(at));
      }
    }
    edges.add(end);
    return edges.stream().mapToLong(Long::longValue).toArray();
  }

  private static float[] chroma(Spectrogram spectra, double from, double to) {
    double perSecond = Spectrogram.PER_SECOND / (double) Spectrogram.CHROMA_EVERY;
    int first = (int) Math.round(from * perSecond);
    int last = Math.max(first + 1, (int) Math.round(to * perSecond));
    float[] sum = new float[Spectrogram.PITCHES];
    for (int c = first; c < Math.min(last, spectra.chroma().length); c++) {
      for (int p = 0; p < sum.length; p++) {
        sum[p] += spectra.chroma()[c][p];
      }
    }
    double square = 1e-12;
    for (float x : sum) {
      square += x * x;
    }
    for (int p = 0; p < sum.length; p++) {
      sum[p] /= (float) Math.sqrt(square);
    }
    return sum;
  }

  /** The mean band levels as cepstral coefficients (DCT-II), the first left out. */
  private static float[] timbre(Spectrogram spectra, double from, double to) {
    int first = (int) Math.round(from * Spectrogram.PER_SECOND);
    int last = Math.max(first + 1, (int) Math.round(to * Spectrogram.PER_SECOND));
    double[] mean = new double[Spectrogram.BANDS];
    int count = 0;
    for (int t = first; t < Math.min(last, spectra.frames()); t++) {
      for (int b = 0; b < mean.length; b++) {
        mean[b] += spectra.bands()[t][b];
      }
      count++;
    }
    float[] result = new float[COEFFICIENTS];
    for (int k = 0; k < COEFFICIENTS; k++) {
      double sum = 0;
      for (int b = 0; b < mean.length; b++) {
        sum += mean[b] * Math.cos(Math.PI * (k + 1) * (b + 0.5) / mean.length);
      }
      result[k] = (float) (sum / Math.max(1, count));
    }
    return result;
  }

  private static void standardise(float[][] values) {
    for (int k = 0; k < COEFFICIENTS; k++) {
      double sum = 0;
      double squares = 0;
      for (float[] value : values) {
        sum += value[k];
        squares += value[k] * (double) value[k];
      }
      double mean = sum / values.length;
      double deviation = Math.sqrt(Math.max(1e-6, squares / values.length - mean * mean));
      for (float[] value : values) {
        value[k] = (float) ((value[k] - mean) / Math.max(deviation, 2));
      }
    }
  }

  private static float[] rhythm(Spectrogram spectra, double from, double to) {
    double first = Spectrogram.frameOf(from) - 2;
    double length = (to - from) * Spectrogram.PER_SECOND;
    float[] result = new float[QUARTERS];
    for (int t = Math.max(0, (int) Math.ceil(first)); t < first + length; t++) {
      if (t < spectra.frames()) {
        int quarter = Math.clamp((int) ((t - first) / length * QUARTERS), 0, QUARTERS - 1);
        result[quarter] = Math.max(result[quarter], spectra.onset()[t]);
      }
    }
    return result;
  }

  private static float level(float[] levels, double from, double to) {
    int first = (int) Math.round(from * Spectrogram.PER_SECOND);
    int last = Math.max(first + 1, (int) Math.round(to * Spectrogram.PER_SECOND));
    double sum = 0;
    int count = 0;
    for (int t = first; t < Math.min(last, levels.length); t++) {
      sum += levels[t];
      count++;
    }
    return (float) Decibels.ofFactor(Math.sqrt(sum / Math.max(1, count) + 1e-10));
  }
}

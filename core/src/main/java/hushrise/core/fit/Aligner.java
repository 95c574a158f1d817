package hushrise.core.fit;

import hushrise.core.sound.SampleSource;

/**
 * Aligns the two sides of a jump to the sample: the shift at which their normalised
 * cross-correlation is highest, near shifts being preferred. The crossfade is short where both
 * sides are the same wave and long where they are not.
 */
final class Aligner {

  /** The middle of a crossfade lies this long before the beat, so that the attack stays whole. */
  private static final double BEFORE_BEAT_SECONDS = 0.02;

  private static final double BEAT_REACH_SECONDS = 0.012;
  private static final double BEAT_WINDOW_SECONDS = 0.16;
  private static final double TEXTURE_REACH_SECONDS = 0.12;
  private static final double TEXTURE_WINDOW_SECONDS = 0.5;

  private final SongAnalysis song;
  private final MonoReader mono;
  private final SampleSource source;

  Aligner(SongAnalysis song, SampleSource source) {
    this.song = song;
    this.source = source;
    this.mono = new MonoReader(source, song.sampleRate());
  }

  Splice align(int fromEdge, int toEdge, double score) {
    boolean beat = song.hasBeat();
    long before = beat ? Math.round(BEFORE_BEAT_SECONDS * song.sampleRate()) : 0;
    long from = Math.max(0, song.edges()[fromEdge] - before);
    long to = Math.max(0, song.edges()[toEdge] - before);
    double reach = beat ? BEAT_REACH_SECONDS : TEXTURE_REACH_SECONDS;
    double window = beat ? BEAT_WINDOW_SECONDS : TEXTURE_WINDOW_SECONDS;
    int half = (int) (window / 2 * mono.rate());
    int slack = (int) (reach * mono.rate());
    float[] ending = new float[2 * half];
    float[] going = new float[2 * (half + slack)];
    mono.window(from / mono.factor() - half, ending, ending.length);
    mono.window(to / mono.factor() - half - slack, going, going.length);
    int best = 0;
    double bestScore = Double.NEGATIVE_INFINITY;
    double bestCorrelation = 0;
    for (int shift = -slack; shift < slack; shift++) {
      double correlation = correlation(ending, going, slack + shift);
      double preferred = correlation - 0.05 * Math.abs(shift) / slack;
      if (preferred > bestScore) {
        bestScore = preferred;
        best = shift;
        bestCorrelation = correlation;
      }
    }
    long aligned = to + (long) best * mono.factor();
    if (bestCorrelation > 0.5) {
      aligned += fineShift(from, aligned, 2 * mono.factor());
    }
    double r = Math.clamp(bestCorrelation, 0, 1);
    return new Splice(
        fromEdge, toEdge, from, Math.max(0, aligned), crossfade(r, fromEdge), r, score);
  }

  /** What is left to shift at the full rate, in frames. */
  private long fineShift(long from, long to, int slack) {
    int n = 2048;
    float[] ending = read(from - n / 2, n);
    float[] going = read(to - n / 2 - slack, n + 2 * slack);
    int best = 0;
    double bestCorrelation = Double.NEGATIVE_INFINITY;
    for (int shift = -slack; shift <= slack; shift++) {
      double correlation = correlation(ending, going, slack + shift);
      if (correlation > bestCorrelation) {
        bestCorrelation = correlation;
        best = shift;
      }
    }
    return best;
  }

  private float[] read(long from, int frames) {
    float[] left = new float[frames];
    source.read(from, frames, left, new float[frames], 0);
    return left;
  }

  private static double correlation(float[] a, float[] b, int offset) {
    float dot = 0;
    float aa = 1e-9f;
    float bb = 1e-9f;
    for (int i = 0; i < a.length; i++) {
      float x = a[i];
      float y = b[offset + i];
      dot += x * y;
      aa += x * x;
      bb += y * y;
    }
    return dot / Math.sqrt((double) aa * bb);
  }

  private long crossfade(double correlation, int fromEdge) {
    double shortest = song.hasBeat() ? 0.012 : 0.15;
    double longest = song.hasBeat() ? 0.08 : 1.0;
    double seconds = shortest + (longest - shortest) * (1 - correlation);
    long most = (song.edges()[fromEdge] - song.edges()[0]) / 2;
    return Math.max(2, Math.min(Math.round(seconds * song.sampleRate()), most) / 2 * 2);
  }
}

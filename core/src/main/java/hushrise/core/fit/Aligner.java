package hushrise.core.fit;

import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Seam.Evening;
import hushrise.core.sound.SampleSource;
import java.util.Optional;

/**
 * Aligns the two sides of a jump to the sample: the shift at which their normalised
 * cross-correlation is highest, near shifts being preferred. The crossfade is short where both
 * sides are the same wave and long where they are not.
 */
final class Aligner {

  /** The middle of a crossfade lies this long before the beat, so that the attack stays whole. */
  private static final double BEFORE_BEAT_SECONDS = 0.02;

  private static final double BEAT_REACH_SECONDS = 0.006;
  private static final double BEAT_WINDOW_SECONDS = 0.16;
  private static final double TEXTURE_REACH_SECONDS = 0.03;
  private static final double TEXTURE_WINDOW_SECONDS = 0.3;

  private static final int STEPS_PER_SECOND = 200;
  private static final double ENVELOPE_SECONDS = 1.2;
  private static final double ENVELOPE_REACH_SECONDS = 0.06;
  private static final double ONSET_REACH_SECONDS = 0.3;

  /** The least rise that is an onset, both levels added, in units of 10 dB. */
  private static final double LEAST_RISE = 0.6;

  private static final long NO_ONSET = -1;

  private static final double LEVEL_SECONDS = 2;
  private static final double LEAST_STEP_DB = 0.2;

  /** From this correlation on both sides are the same recording. */
  private static final double LITERAL = 0.9;

  private final SongAnalysis song;
  private final MonoReader mono;
  private final SampleSource source;

  Aligner(SongAnalysis song, SampleSource source) {
    this.song = song;
    this.source = source;
    this.mono = new MonoReader(source, song.sampleRate());
  }

  Splice align(Joint joint) {
    boolean beat = song.hasBeat();
    long rough = joint.toFrame() + envelopeShift(joint);
    long before = frames(BEFORE_BEAT_SECONDS);
    long onset = onsetNear(joint.fromFrame());
    boolean attack = onset != NO_ONSET;
    onset = attack ? onset : joint.fromFrame();
    long from = Math.max(0, onset - before);
    long to = Math.max(0, rough + onset - joint.fromFrame() - before);
    double reach = beat ? BEAT_REACH_SECONDS : TEXTURE_REACH_SECONDS;
    double window = beat ? BEAT_WINDOW_SECONDS : TEXTURE_WINDOW_SECONDS;
    int half = (int) (window / 2 * mono.rate());
    int slack = (int) (reach * mono.rate());
    float[] ending = new float[2 * half];
    float[] coming = new float[2 * (half + slack)];
    mono.window(from / mono.factor() - half, ending, ending.length);
    mono.window(to / mono.factor() - half - slack, coming, coming.length);
    int best = 0;
    double bestScore = Double.NEGATIVE_INFINITY;
    double bestCorrelation = 0;
    for (int shift = -slack; shift < slack; shift++) {
      double correlation = correlation(ending, coming, slack + shift);
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
    long going = Math.max(0, aligned);
    return new Splice(
        from,
        going,
        crossfade(r, attack, from),
        r,
        likeness(joint, from, going),
        evening(from, going));
  }

  private double likeness(Joint joint, long from, long to) {
    double apart =
        Double.isNaN(joint.apartDb())
            ? BothSides.apartDb(source, song.sampleRate(), from, to)
            : joint.apartDb();
    return song.echoes().likeness(apart);
  }

  /** By how much what goes on is to be turned up to be as loud as what would have come. */
  private Optional<Evening> evening(long from, long to) {
    double step = levelDb(from) - levelDb(to);
    if (Math.abs(step) < LEAST_STEP_DB) {
      return Optional.empty();
    }
    long bar = song.hasBeat() ? song.beatsPerBar() * song.usualStretch() : frames(LEVEL_SECONDS);
    double gain = Math.clamp(step, -Seam.MOST_GAIN_DB, Seam.MOST_GAIN_DB);
    return Optional.of(new Evening(gain, bar));
  }

  /** The level of what follows a frame. */
  private double levelDb(long frame) {
    long end = Math.min(frame + frames(LEVEL_SECONDS), song.soundEnd());
    double sum = 1e-9;
    float[] part = new float[1 << 14];
    for (long at = frame / mono.factor(); at < end / mono.factor(); at += part.length) {
      int n = (int) Math.min(part.length, end / mono.factor() - at);
      mono.window(at, part, n);
      for (int i = 0; i < n; i++) {
        sum += part[i] * part[i];
      }
    }
    return 10 * Math.log10(sum / Math.max(1, end - frame));
  }

  private long frames(double seconds) {
    return Math.round(seconds * song.sampleRate());
  }

  /**
   * How much later the side that goes on has to begin so that the rises and falls of both sides
   * fall together, in frames: echoes are known to a twentieth of a second only.
   */
  private long envelopeShift(Joint joint) {
    int hop = mono.rate() / STEPS_PER_SECOND;
    int half = (int) (ENVELOPE_SECONDS * STEPS_PER_SECOND);
    int slack = (int) (ENVELOPE_REACH_SECONDS * STEPS_PER_SECOND);
    float[][] ending = steps(joint.fromFrame(), half, hop);
    float[][] going = steps(joint.toFrame(), half + slack, hop);
    int best = 0;
    double least = Double.POSITIVE_INFINITY;
    for (int shift = -slack; shift <= slack; shift++) {
      double sum = 0;
      for (int v = 0; v < ending.length; v++) {
        for (int i = 0; i < 2 * half; i++) {
          double step = ending[v][i] - going[v][i + slack + shift];
          sum += step * step;
        }
      }
      if (sum < least) {
        least = sum;
        best = shift;
      }
    }
    return (long) best * hop * mono.factor();
  }

  /** The levels of all and of high frequencies around a frame, in units of 10 dB. */
  private float[][] steps(long frame, int half, int hop) {
    int count = 2 * half;
    float[] samples = new float[count * hop + 1];
    long start = frame / mono.factor() - (long) half * hop;
    for (int done = 0; done < samples.length; done += 1 << 14) {
      int n = Math.min(1 << 14, samples.length - done);
      float[] part = new float[n];
      mono.window(start + done, part, n);
      System.arraycopy(part, 0, samples, done, n);
    }
    float[][] levels = new float[2][count];
    for (int i = 0; i < count; i++) {
      double all = 1e-7;
      double high = 1e-8;
      for (int k = i * hop; k < (i + 1) * hop; k++) {
        double rise = samples[k + 1] - samples[k];
        all += samples[k] * samples[k];
        high += rise * rise;
      }
      levels[0][i] = (float) Math.log10(all / hop);
      levels[1][i] = (float) Math.log10(high / hop);
    }
    return levels;
  }

  /** The strongest onset near a frame, as an attack hides a join; {@link #NO_ONSET} without one. */
  private long onsetNear(long frame) {
    int hop = mono.rate() / STEPS_PER_SECOND;
    int half = (int) (ONSET_REACH_SECONDS * STEPS_PER_SECOND);
    float[][] levels = steps(frame, half, hop);
    int best = (int) NO_ONSET;
    double strongest = LEAST_RISE;
    for (int i = 4; i < 2 * half; i++) {
      double rise = levels[0][i] + levels[1][i] - levels[0][i - 3] - levels[1][i - 3];
      if (rise > strongest) {
        strongest = rise;
        best = i;
      }
    }
    return best < 0 ? NO_ONSET : frame + (long) (best - half) * hop * mono.factor();
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

  /** Short on a literal repeat and before an attack, longer where sound is sustained. */
  private long crossfade(double correlation, boolean attack, long from) {
    double sustained = song.hasBeat() ? 0.18 : 0.8;
    double seconds =
        correlation > LITERAL ? 0.012 : attack ? 0.03 : 0.06 + sustained * (1 - correlation);
    long most = (from - song.soundStart()) / 2;
    return Math.max(2, Math.min(frames(seconds), most) / 2 * 2);
  }
}

package hushrise.core.fit;

import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Supplier;
import java.util.stream.Stream;

/**
 * Short made-up pieces of music whose beats are known: how the finding of beats and seams is
 * measured.
 */
final class Pieces {

  static final int RATE = 48_000;

  private Pieces() {}

  /** Tones of any height, length and loudness one after another: nothing in it comes again. */
  static SampleSource wandering(int seconds, long seed) {
    float[] wandering = new float[seconds * RATE];
    Random random = new Random(seed);
    double hertz = 200;
    double loud = 0.2;
    int until = 0;
    for (int i = 0; i < wandering.length; i++) {
      if (i >= until) {
        until = i + (int) (RATE * (0.05 + 0.35 * random.nextDouble()));
        hertz = 80 * Math.pow(40, random.nextDouble());
        loud = 0.4 * Math.pow(10, -1.5 * random.nextDouble());
      }
      double turn = 2 * Math.PI * hertz * i / RATE;
      wandering[i] =
          (float)
              (loud * (Math.sin(turn) + 0.5 * Math.sin(2 * turn)) + 1e-3 * random.nextGaussian());
    }
    return SampleSource.of(wandering);
  }

  /**
   * A piece.
   *
   * @param name what it is
   * @param sound its samples
   * @param beats where its beats are, in seconds; empty for a piece without any
   */
  @SuppressWarnings("ArrayRecordComponent") // handed on, never compared
  record Piece(String name, SampleSource sound, double[] beats) {

    double seconds() {
      return sound.lengthFrames() / (double) RATE;
    }

    /** The piece as a song that can be fitted. */
    Song analysed() {
      return new Song(SongAnalyzer.analyze(sound, RATE, name, Progress.NONE), sound);
    }

    Piece withoutBeats() {
      return new Piece(name, sound, new double[0]);
    }

    @Override
    public String toString() {
      return name;
    }
  }

  /** Chords of a progression, as semitones over A. */
  private static final int[][] PROGRESSION_A = {{0, 4, 7}, {9, 12, 16}, {5, 9, 12}, {7, 11, 14}};

  private static final int[][] PROGRESSION_B = {{9, 12, 16}, {2, 5, 9}, {7, 11, 14}, {0, 4, 7}};
  private static final int[][] PROGRESSION_C = {{5, 9, 12}, {4, 8, 11}, {9, 12, 16}, {2, 6, 9}};

  static List<Piece> all() {
    return Stream.<Supplier<Piece>>of(
            () -> steady("steady 120", 120, 4, 32, 1),
            () -> steady("steady 96", 96, 4, 24, 2),
            () -> steady("steady 140", 140, 4, 36, 3),
            () -> swing("swing 108", 108, 28, 4),
            () -> steady("waltz 132", 132, 3, 40, 5),
            () -> drifting("drift of 1 % around 112", 112, 28, 6),
            () -> pads("pads", 40, 7),
            () -> songForm("song A B A C with an ending", 104, 8),
            () -> withSilence("silence at both ends", 9, 3),
            () -> asMono("mono", 100, 10),
            () -> limitedTo("8 kHz", 118, 8_000, 11),
            () -> limitedTo("44.1 kHz", 92, 44_100, 12),
            () -> drone("drone", 35, 13),
            () -> steady("slow 72", 72, 4, 20, 14))
        .parallel()
        .map(Supplier::get)
        .toList();
  }

  static Piece steady(String name, double bpm, int beatsPerBar, int bars, long seed) {
    Score score = new Score(bars * beatsPerBar * 60 / bpm + 2, seed);
    for (int beat = 0; beat < bars * beatsPerBar; beat++) {
      score.beat(
          beat * 60 / bpm, beat, beatsPerBar, chord(PROGRESSION_A, beat / beatsPerBar), 60 / bpm);
    }
    return score.piece(name);
  }

  private static int[] chord(int[][] progression, int bar) {
    return progression[bar % progression.length];
  }

  static Piece swing(String name, double bpm, int bars, long seed) {
    Score score = new Score(bars * 4 * 60 / bpm + 2, seed);
    for (int beat = 0; beat < bars * 4; beat++) {
      double at = beat * 60 / bpm;
      score.beat(at, beat, 4, chord(PROGRESSION_B, beat / 4), 60 / bpm);
      score.hat(at + 60 / bpm * 2 / 3, 0.10);
    }
    return score.piece(name);
  }

  static Piece drifting(String name, double bpm, int bars, long seed) {
    Score score = new Score(bars * 4 * 60 / bpm + 4, seed);
    double at = 0;
    for (int beat = 0; beat < bars * 4; beat++) {
      double length = 60 / bpm * (1 + 0.01 * Math.sin(2 * Math.PI * beat / 45));
      score.beat(at, beat, 4, chord(PROGRESSION_A, beat / 4), length);
      at += length;
    }
    return score.piece(name);
  }

  /** Sections A B A C, then a long last chord that dies away. */
  static Piece songForm(String name, double bpm, long seed) {
    int[][][] form = {PROGRESSION_A, PROGRESSION_B, PROGRESSION_A, PROGRESSION_C};
    double beatSeconds = 60 / bpm;
    Score score = new Score(4 * 32 * beatSeconds + 6, seed);
    for (int beat = 0; beat < 4 * 32; beat++) {
      int section = beat / 32;
      score.beat(beat * beatSeconds, beat, 4, chord(form[section], beat / 4), beatSeconds);
      if (section == 3) {
        score.hat((beat + 0.5) * beatSeconds, 0.08);
      }
    }
    score.note(4 * 32 * beatSeconds, 4.5, new int[] {0, 4, 7, 12}, 0.3, 1.0);
    score.kick(4 * 32 * beatSeconds);
    return score.piece(name);
  }

  /** Slow chords that swell into each other, with no attack anywhere. */
  static Piece pads(String name, double seconds, long seed) {
    Score score = new Score(seconds, seed);
    for (int i = 0; i * 4 < seconds - 4; i++) {
      score.pad(i * 4, 6, chord(PROGRESSION_A, i), 0.15);
    }
    return score.piece(name).withoutBeats();
  }

  static Piece drone(String name, double seconds, long seed) {
    Score score = new Score(seconds, seed);
    score.pad(0, seconds, new int[] {0, 7, 12}, 0.2);
    score.breath(0.03);
    return score.piece(name).withoutBeats();
  }

  static Piece withSilence(String name, long seed, int secondsAfter) {
    Piece inner = steady(name, 110, 4, 24, seed);
    int lead = (int) (1.7 * RATE);
    float[] samples = new float[(int) inner.sound().lengthFrames() + lead + secondsAfter * RATE];
    inner.sound().read(0, (int) inner.sound().lengthFrames(), samples, new float[0], lead);
    double[] beats = inner.beats().clone();
    for (int i = 0; i < beats.length; i++) {
      beats[i] += 1.7;
    }
    return new Piece(name, SampleSource.of(samples), beats);
  }

  static Piece asMono(String name, double bpm, long seed) {
    return steady(name, bpm, 4, 24, seed);
  }

  /** A piece as it comes from a file of a lower rate: nothing above half of that rate is left. */
  static Piece limitedTo(String name, double bpm, int rate, long seed) {
    Piece full = steady(name, bpm, 4, 24, seed);
    int frames = (int) full.sound().lengthFrames();
    float[] samples = new float[frames];
    full.sound().read(0, frames, samples, new float[0], 0);
    int taps = 63;
    double cut = Math.min(0.49, 0.45 * rate / RATE);
    double[] kernel = new double[taps];
    for (int i = 0; i < taps; i++) {
      double x = i - taps / 2;
      double sinc = x == 0 ? 2 * cut : Math.sin(2 * Math.PI * cut * x) / (Math.PI * x);
      kernel[i] = sinc * (0.5 + 0.5 * Math.cos(Math.PI * x / (taps / 2 + 1)));
    }
    float[] low = new float[frames];
    for (int i = 0; i < frames; i++) {
      double sum = 0;
      for (int k = Math.max(0, i - frames + 1 + taps / 2); k < taps; k++) {
        int at = i + k - taps / 2;
        sum += at < 0 || at >= frames ? 0 : kernel[k] * samples[at];
      }
      low[i] = (float) sum;
    }
    return new Piece(name, SampleSource.of(low), full.beats());
  }

  /** A piece in the making. */
  private static final class Score {
    private final float[] samples;
    private final Random random;
    private final List<Double> beats = new ArrayList<>();
    private double end;

    Score(double seconds, long seed) {
      samples = new float[(int) (seconds * RATE)];
      random = new Random(seed);
      end = seconds;
    }

    void beat(double at, int number, int beatsPerBar, int[] chord, double length) {
      beats.add(at);
      boolean bar = number % beatsPerBar == 0;
      if (bar) {
        kick(at);
        note(at, length * beatsPerBar, new int[] {chord[0] - 12}, 0.22, 0.6);
      } else {
        hat(at, 0.12);
      }
      if (beatsPerBar == 4 && number % 4 == 2) {
        snare(at);
      }
      note(at, length * 0.95, chord, 0.12 * (0.95 + 0.1 * random.nextDouble()), 0.5);
      end = at + length + 0.6;
    }

    void kick(double at) {
      add(
          at,
          0.18,
          t ->
              0.5
                  * Math.exp(-t * 28)
                  * Math.sin(2 * Math.PI * (50 * t + 3 * (1 - Math.exp(-t * 40)))));
    }

    void snare(double at) {
      add(at, 0.12, t -> 0.25 * Math.exp(-t * 35) * (random.nextDouble() * 2 - 1));
    }

    void hat(double at, double level) {
      add(at, 0.05, t -> level * Math.exp(-t * 90) * (random.nextDouble() * 2 - 1));
    }

    void note(double at, double length, int[] semitones, double level, double decaySeconds) {
      for (int semitone : semitones) {
        double hz = 220 * Math.pow(2, semitone / 12.0);
        add(
            at,
            length,
            t ->
                level
                    / semitones.length
                    * Math.min(1, t * 300)
                    * Math.min(1, (length - t) * 100)
                    * Math.exp(-t / decaySeconds)
                    * (Math.sin(2 * Math.PI * hz * t)
                        + 0.5 * Math.sin(4 * Math.PI * hz * t)
                        + 0.25 * Math.sin(6 * Math.PI * hz * t)));
      }
      end = Math.max(end, at + length);
    }

    void pad(double at, double length, int[] semitones, double level) {
      for (int semitone : semitones) {
        double hz = 220 * Math.pow(2, semitone / 12.0);
        double drift = random.nextDouble() * 0.3;
        add(
            at,
            length,
            t ->
                level
                    / semitones.length
                    * Math.pow(Math.sin(Math.PI * t / length), 0.5)
                    * (Math.sin(2 * Math.PI * hz * t)
                        + 0.4 * Math.sin(2 * Math.PI * (2 * hz + drift) * t)));
      }
    }

    void breath(double level) {
      double[] state = {0};
      add(
          0,
          samples.length / (double) RATE,
          t -> {
            state[0] = 0.97 * state[0] + 0.03 * (random.nextDouble() * 2 - 1);
            return level * 8 * state[0];
          });
    }

    private void add(double at, double length, java.util.function.DoubleUnaryOperator wave) {
      int first = (int) Math.round(at * RATE);
      int count = (int) (length * RATE);
      for (int i = 0; i < count && first + i < samples.length; i++) {
        samples[first + i] += (float) wave.applyAsDouble(i / (double) RATE);
      }
    }

    Piece piece(String name) {
      int length = Math.min(samples.length, (int) (end * RATE));
      float[] cut = java.util.Arrays.copyOf(samples, length);
      return new Piece(
          name, SampleSource.of(cut), beats.stream().mapToDouble(Double::doubleValue).toArray());
    }
  }
}

package hushrise.demo;

import java.util.Random;

/** A few plain instruments, added into stereo arrays at 48 kHz. Deterministic. */
final class Synth {

  static final int RATE = 48_000;

  final float[] left;
  final float[] right;

  Synth(double seconds) {
    left = new float[(int) Math.round(seconds * RATE)];
    right = new float[left.length];
  }

  /** The frequency of a MIDI note number in Hz. */
  static double hz(double note) {
    return 440 * Math.pow(2, (note - 69) / 12);
  }

  private void add(int frame, double value, double pan) {
    if (frame >= 0 && frame < left.length) {
      left[frame] += (float) (value * Math.cos((pan + 1) * Math.PI / 4));
      right[frame] += (float) (value * Math.sin((pan + 1) * Math.PI / 4));
    }
  }

  /** A struck string: partials that die away, the high ones first. */
  void pluck(double at, double note, double level, double pan) {
    double f = hz(note);
    int start = (int) (at * RATE);
    for (int i = 0; i < RATE * 2.2; i++) {
      double t = i / (double) RATE;
      double v = 0;
      for (int k = 1; k <= 6; k++) {
        v +=
            Math.sin(2 * Math.PI * f * k * t * (1 + 0.0002 * k * k))
                / k
                * Math.exp(-t * (1.6 + 1.1 * k));
      }
      add(start + i, v * level * Math.min(1, t / 0.004), pan);
    }
  }

  /** A soft chord tone that swells and ebbs. */
  void pad(double at, double length, double note, double level, double pan) {
    double f = hz(note);
    int start = (int) (at * RATE);
    int n = (int) ((length + 0.8) * RATE);
    for (int i = 0; i < n; i++) {
      double t = i / (double) RATE;
      double envelope = Math.min(1, t / 0.6) * Math.clamp((length + 0.8 - t) / 0.8, 0, 1);
      double drift = 1 + 0.0015 * Math.sin(2 * Math.PI * 0.31 * t + note);
      double v =
          Math.sin(2 * Math.PI * f * drift * t)
              + 0.4 * Math.sin(2 * Math.PI * f * 2.003 * t)
              + 0.15 * Math.sin(2 * Math.PI * f * 3.001 * t);
      add(start + i, v * level * envelope, pan + 0.2 * Math.sin(2 * Math.PI * 0.2 * t));
    }
  }

  void bass(double at, double length, double note, double level) {
    double f = hz(note);
    int start = (int) (at * RATE);
    for (int i = 0; i < length * RATE; i++) {
      double t = i / (double) RATE;
      double envelope =
          Math.min(1, t / 0.01) * Math.clamp((length - t) / 0.06, 0, 1) * Math.exp(-t * 0.9);
      double v = Math.sin(2 * Math.PI * f * t) + 0.3 * Math.sin(4 * Math.PI * f * t);
      add(start + i, v * level * envelope, 0);
    }
  }

  /** A brushed drum or shaker: shaped noise. */
  void brush(double at, double length, double level, double bright, long seed) {
    Random random = new Random(seed);
    int start = (int) (at * RATE);
    double low = 0;
    for (int i = 0; i < length * RATE; i++) {
      double t = i / (double) RATE;
      double noise = random.nextDouble() * 2 - 1;
      low += (noise - low) * (1 - bright);
      add(
          start + i,
          (bright * (noise - low) + (1 - bright) * low)
              * level
              * Math.exp(-t / length * 5)
              * Math.min(1, t / 0.002),
          0.15);
    }
  }

  void kick(double at, double level) {
    int start = (int) (at * RATE);
    double phase = 0;
    for (int i = 0; i < RATE * 0.28; i++) {
      double t = i / (double) RATE;
      phase += 2 * Math.PI * (48 + 70 * Math.exp(-t * 34)) / RATE;
      add(start + i, Math.sin(phase) * level * Math.exp(-t * 13), 0);
    }
  }

  /** Scales everything so that the largest sample has this amplitude. */
  void normalise(double peak) {
    float largest = 1e-9f;
    for (int i = 0; i < left.length; i++) {
      largest = Math.max(largest, Math.max(Math.abs(left[i]), Math.abs(right[i])));
    }
    float factor = (float) (peak / largest);
    for (int i = 0; i < left.length; i++) {
      left[i] *= factor;
      right[i] *= factor;
    }
  }
}

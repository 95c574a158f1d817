package hushrise.core.fit;

import hushrise.core.sound.Progress;
import org.jtransforms.fft.FloatFFT_1D;

/**
 * What is read off a song's short-time spectra: an onset-strength curve and the level of frequency
 * bands every 10 ms, and chroma and the level of bass bands every 40 ms.
 *
 * <p>Onset strength is the spectral flux of D. Ellis, "Beat Tracking by Dynamic Programming"
 * (2007): the sum over bands of the rises of the band levels in dB. Chroma folds the magnitudes
 * between 110 and 2100 Hz into twelve pitch classes.
 */
final class Spectrogram {

  /** Frames of the onset curve in a second. */
  static final int PER_SECOND = 100;

  static final int BANDS = 40;
  static final int PITCHES = 12;

  /** Bands of half an octave each from {@link #LOWEST_HZ} on. */
  static final int BASS_BANDS = 4;

  /** How many onset frames share one chroma frame. */
  static final int CHROMA_EVERY = 4;

  /** How long before the middle of its window an attack shows in the flux, in frames. */
  private static final double ATTACK_LEAD = 1.0;

  private static final int FLUX_WINDOW = 1024;
  private static final int CHROMA_WINDOW = 4096;
  private static final double LOWEST_HZ = 40;

  /** How far under the loudest is still told apart: a soft cymbal in a quiet part is heard. */
  private static final double RANGE_DB = 80;

  /** The same for bass, which is heard less deep. */
  private static final double BASS_RANGE_DB = 50;

  private final int frames;
  private final float[] onset;
  private final float[][] bands;
  private final float[][] chroma;
  private final float[][] bass;

  private Spectrogram(int frames) {
    this.frames = frames;
    onset = new float[frames];
    bands = new float[frames][];
    chroma = new float[frames / CHROMA_EVERY + 1][PITCHES];
    bass = new float[chroma.length][BASS_BANDS];
  }

  int frames() {
    return frames;
  }

  /** Onset strength, at least 0, with a standard deviation of 1. */
  float[] onset() {
    return onset;
  }

  /** Band levels of each frame in dB relative to the song's loudest. */
  float[][] bands() {
    return bands;
  }

  float[][] chroma() {
    return chroma;
  }

  /** Levels of the bass bands of each chroma frame in dB relative to the loudest frame. */
  float[][] bass() {
    return bass;
  }

  /** The onset frame at which an attack at a time shows. */
  static double frameOf(double seconds) {
    return seconds * PER_SECOND - ATTACK_LEAD;
  }

  /** The time of an attack that shows at an onset frame. */
  static double secondsOf(double frame) {
    return (frame + ATTACK_LEAD) / PER_SECOND;
  }

  static Spectrogram of(MonoReader mono, Progress progress) {
    int hop = mono.rate() / PER_SECOND;
    Spectrogram result = new Spectrogram((int) (mono.length() / hop) + 1);
    result.readBands(mono, hop, progress);
    result.readChroma(mono, hop * CHROMA_EVERY, progress);
    return result;
  }

  private void readBands(MonoReader mono, int hop, Progress progress) {
    float[] window = hann(FLUX_WINDOW);
    float[] spectrum = new float[FLUX_WINDOW];
    FloatFFT_1D fft = new FloatFFT_1D(FLUX_WINDOW);
    int[] bandOf = bandsOfBins(mono.rate());
    float loudest = Float.NEGATIVE_INFINITY;
    for (int t = 0; t < frames; t++) {
      spectrum(mono, (long) t * hop, window, spectrum, fft);
      float[] energy = new float[BANDS];
      for (int bin = 1; bin < FLUX_WINDOW / 2; bin++) {
        float re = spectrum[2 * bin];
        float im = spectrum[2 * bin + 1];
        energy[bandOf[bin]] += re * re + im * im;
      }
      for (int b = 0; b < BANDS; b++) {
        energy[b] = (float) (10 * Math.log10(energy[b] + 1e-12));
        loudest = Math.max(loudest, energy[b]);
      }
      bands[t] = energy;
      if (t % 512 == 0) {
        progress.at(0.6 * t / frames);
      }
    }
    toOnset(loudest);
  }

  private void toOnset(float loudest) {
    for (float[] frame : bands) {
      for (int b = 0; b < BANDS; b++) {
        frame[b] = (float) Math.max(frame[b] - loudest, -RANGE_DB);
      }
    }
    for (int t = 1; t < frames; t++) {
      float sum = 0;
      for (int b = 0; b < BANDS; b++) {
        sum += Math.max(0, bands[t][b] - bands[t - 1][b]);
      }
      onset[t] = sum;
    }
    double square = 0;
    for (float value : onset) {
      square += value * (double) value;
    }
    float scale = square == 0 ? 0 : (float) (1 / Math.sqrt(square / frames));
    for (int t = 0; t < frames; t++) {
      onset[t] *= scale;
    }
  }

  /** Bands of equal width on the mel scale. */
  private static int[] bandsOfBins(int rate) {
    int[] bandOf = new int[FLUX_WINDOW / 2];
    double low = mel(LOWEST_HZ);
    double high = mel(rate / 2.0);
    for (int bin = 0; bin < bandOf.length; bin++) {
      double at = (mel(bin * (double) rate / FLUX_WINDOW) - low) / (high - low);
      bandOf[bin] = Math.clamp((int) (at * BANDS), 0, BANDS - 1);
    }
    return bandOf;
  }

  private static double mel(double hz) {
    return 2595 * Math.log10(1 + hz / 700);
  }

  private void readChroma(MonoReader mono, int hop, Progress progress) {
    float[] window = hann(CHROMA_WINDOW);
    float[] spectrum = new float[CHROMA_WINDOW];
    FloatFFT_1D fft = new FloatFFT_1D(CHROMA_WINDOW);
    double binHz = mono.rate() / (double) CHROMA_WINDOW;
    int first = (int) Math.ceil(110 / binHz);
    int last = Math.min((int) (2100 / binHz), CHROMA_WINDOW / 2 - 1);
    int[] pitchOf = new int[last + 1];
    for (int bin = first; bin <= last; bin++) {
      double semitones = 12 * Math.log(bin * binHz / 440) / Math.log(2);
      pitchOf[bin] = Math.floorMod(Math.round(semitones), PITCHES);
    }
    int[] bassOf = new int[CHROMA_WINDOW / 2];
    for (int bin = 0; bin < bassOf.length; bin++) {
      bassOf[bin] = (int) Math.floor(2 * Math.log(bin * binHz / LOWEST_HZ) / Math.log(2));
    }
    double loudest = 0;
    for (int c = 0; c < chroma.length; c++) {
      spectrum(mono, (long) c * hop, window, spectrum, fft);
      double all = 0;
      for (int bin = 1; bin < bassOf.length; bin++) {
        float re = spectrum[2 * bin];
        float im = spectrum[2 * bin + 1];
        float power = re * re + im * im;
        all += power;
        if (bassOf[bin] >= 0 && bassOf[bin] < BASS_BANDS) {
          bass[c][bassOf[bin]] += power;
        }
      }
      loudest = Math.max(loudest, all);
      for (int bin = first; bin <= last; bin++) {
        float re = spectrum[2 * bin];
        float im = spectrum[2 * bin + 1];
        chroma[c][pitchOf[bin]] += (float) Math.sqrt(re * re + im * im);
      }
      if (c % 128 == 0) {
        progress.at(0.6 + 0.3 * c / chroma.length);
      }
    }
    toBass(loudest);
  }

  private void toBass(double loudest) {
    for (float[] frame : bass) {
      for (int b = 0; b < BASS_BANDS; b++) {
        double db = 10 * Math.log10(frame[b] / Math.max(loudest, 1e-12) + 1e-12);
        frame[b] = (float) Math.max(db, -BASS_RANGE_DB);
      }
    }
  }

  private static void spectrum(
      MonoReader mono, long centre, float[] window, float[] spectrum, FloatFFT_1D fft) {
    mono.window(centre - window.length / 2, spectrum, window.length);
    for (int i = 0; i < window.length; i++) {
      spectrum[i] *= window[i];
    }
    fft.realForward(spectrum);
  }

  private static float[] hann(int length) {
    float[] window = new float[length];
    for (int i = 0; i < length; i++) {
      window[i] = (float) (0.5 - 0.5 * Math.cos(2 * Math.PI * i / length));
    }
    return window;
  }
}

package hushrise.core.fit;

import hushrise.core.sound.SampleSource;

/**
 * A source folded to mono at about 24 kHz, read in windows that move forward. Every second sample
 * of a 48 kHz sound is kept after a short half-band filter; analysis needs no more.
 */
final class MonoReader {

  private static final int ANALYSIS_RATE = 24_000;
  private static final int CHUNK = 1 << 16;

  /** A half-band low-pass of 11 taps (windowed sinc), for a factor of two. */
  private static final float[] HALF_BAND = {
    0.0079f, 0, -0.0424f, 0, 0.2846f, 0.4998f, 0.2846f, 0, -0.0424f, 0, 0.0079f
  };

  private final SampleSource source;
  private final int factor;
  private final int rate;
  private final float[] buffer = new float[CHUNK];
  private long bufferStart = Long.MIN_VALUE;
  private final float[] left;
  private final float[] right;

  MonoReader(SampleSource source, int sampleRate) {
    this.source = source;
    factor = Math.max(1, Math.round(sampleRate / (float) ANALYSIS_RATE));
    rate = sampleRate / factor;
    left = new float[(CHUNK + 8) * factor];
    right = new float[(CHUNK + 8) * factor];
  }

  /** The rate at which samples come out, in Hz. */
  int rate() {
    return rate;
  }

  /** How many frames of the source make one sample. */
  int factor() {
    return factor;
  }

  /** How many samples there are. */
  long length() {
    return source.lengthFrames() / factor;
  }

  /** Copies samples from {@code start} on; outside the sound they are 0. */
  void window(long start, float[] into, int count) {
    if (start < bufferStart || start + count > bufferStart + CHUNK) {
      fill(start - 512);
    }
    System.arraycopy(buffer, (int) (start - bufferStart), into, 0, count);
  }

  private void fill(long start) {
    bufferStart = start;
    int pad = factor == 2 ? 5 : 0;
    int n = CHUNK * factor + 2 * pad;
    source.read(start * factor - pad, n, left, right, 0);
    if (source.channels() == 2) {
      for (int i = 0; i < n; i++) {
        left[i] = 0.5f * (left[i] + right[i]);
      }
    }
    for (int i = 0; i < CHUNK; i++) {
      buffer[i] = factor == 2 ? halfBand(2 * i) : mean(i * factor);
    }
  }

  private float halfBand(int at) {
    return HALF_BAND[0] * (left[at] + left[at + 10])
        + HALF_BAND[2] * (left[at + 2] + left[at + 8])
        + HALF_BAND[4] * (left[at + 4] + left[at + 6])
        + HALF_BAND[5] * left[at + 5];
  }

  private float mean(int at) {
    float sum = 0;
    for (int i = 0; i < factor; i++) {
      sum += left[at + i];
    }
    return sum / factor;
  }
}

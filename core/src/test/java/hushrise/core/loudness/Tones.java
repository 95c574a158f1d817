package hushrise.core.loudness;

import java.util.ArrayList;
import java.util.List;

/** Test signals of sines, put together piece by piece, the same in each channel. */
final class Tones {

  private final int rate;
  private final List<float[]> pieces = new ArrayList<>();

  Tones(int rate) {
    this.rate = rate;
  }

  /** A sine of 1 kHz whose peak has a level in dBFS. */
  Tones at(double dbfs, double seconds) {
    int start = pieces.stream().mapToInt(p -> p.length).sum();
    float[] piece = new float[(int) Math.round(seconds * rate)];
    double amplitude = Math.pow(10, dbfs / 20);
    for (int i = 0; i < piece.length; i++) {
      piece[i] = (float) (amplitude * Math.sin(2 * Math.PI * 1000 * (start + i) / rate));
    }
    pieces.add(piece);
    return this;
  }

  Tones silence(double seconds) {
    pieces.add(new float[(int) Math.round(seconds * rate)]);
    return this;
  }

  float[] samples() {
    float[] all = new float[pieces.stream().mapToInt(p -> p.length).sum()];
    int at = 0;
    for (float[] piece : pieces) {
      System.arraycopy(piece, 0, all, at, piece.length);
      at += piece.length;
    }
    return all;
  }

  /** A meter that has heard the signal in both channels. */
  LoudnessMeter stereo() {
    float[] samples = samples();
    LoudnessMeter meter = LoudnessMeter.forChannels(rate, 2);
    meter.add(new float[][] {samples, samples}, 0, samples.length);
    return meter;
  }
}

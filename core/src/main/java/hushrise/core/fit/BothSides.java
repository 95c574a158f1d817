package hushrise.core.fit;

import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;

/**
 * What lies around both places of a jump, one after the other: measured as {@link EchoFinder} does
 * all places of a song, for a jump that it has not kept. In quiet parts it hears deeper than that,
 * as it knows the loudest of these two stretches only, and so finds them further apart.
 */
record BothSides(SampleSource song, long from, long to, int reach) implements SampleSource {

  private static final double REACH_SECONDS = 4;

  /** How far both sides of a jump are apart in dB, as {@link Echoes#distances}. */
  static double apartDb(SampleSource song, int sampleRate, long from, long to) {
    BothSides both = new BothSides(song, from, to, (int) Math.round(REACH_SECONDS * sampleRate));
    Spectrogram spectra = Spectrogram.of(new MonoReader(both, sampleRate), Progress.NONE);
    return EchoFinder.distance(spectra, REACH_SECONDS, 2 * REACH_SECONDS);
  }

  @Override
  public int channels() {
    return song.channels();
  }

  @Override
  public long lengthFrames() {
    return 4L * reach;
  }

  @Override
  public void read(long startFrame, int frames, float[] left, float[] right, int offset) {
    long middle = 2L * reach;
    int first = (int) Math.clamp(middle - startFrame, 0, frames);
    song.read(from - reach + startFrame, first, left, right, offset);
    song.read(
        to - reach + startFrame + first - middle, frames - first, left, right, offset + first);
  }
}

package hushrise.core.loudness;

import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.sound.SoundLibrary;
import java.util.Optional;

/**
 * Measures a film second by second, from any second on, as measuring it in one go would. It begins
 * a quarter of a second early, by when the filters' past has died away (the slowest, at 38 Hz, by
 * more than 400 dB), or earlier still when a limiter has to have recovered from what came before;
 * and peaks look half a millisecond past both ends, as far as the oversampling filter reaches.
 */
final class PieceMeter {

  /** Energies in a second. */
  static final int HOPS = 10;

  /** How many frames peaks look past both ends. */
  static final int MARGIN = 32;

  private static final double RECOVERED_SECONDS = 1.2;

  /**
   * One second.
   *
   * @param energies the K-weighted mean square of each tenth, both channels added
   * @param truePeak as an amplitude
   * @param exact whether it was measured; if not, the true peak is at most that
   * @param shares what each track gives to it, when that is known
   */
  @SuppressWarnings("ArrayRecordComponent") // never compared
  record Piece(float[] energies, float truePeak, boolean exact, Optional<TrackShares> shares) {

    /** The same with a peak that was measured, or of which a bound was found. */
    Piece withPeak(float peak, boolean measured) {
      return new Piece(energies, peak, measured, shares);
    }

    /** The same, just measured with these factors. */
    Piece withShares(Optional<TrackShares> known, TrackFactors factors) {
      return new Piece(
          energies, truePeak, exact, known.map(s -> s.measuredWith(factors, truePeak)));
    }

    Piece times(double factor) {
      float[] louder = energies.clone();
      for (int i = 0; i < louder.length; i++) {
        louder[i] *= (float) (factor * factor);
      }
      return new Piece(louder, (float) (truePeak * factor), exact, Optional.empty());
    }
  }

  private final int rate;
  private final Mastering.Stream mix;
  private final KWeighting leftFilter;
  private final KWeighting rightFilter;
  private final double[] squares = new double[2];
  private final float[][] read;

  /** The second that is measured, with what lies around it. */
  private final float[] left;

  private final float[] right;

  /**
   * @param firstPiece the first second to measure
   */
  PieceMeter(Project project, SoundLibrary library, int firstPiece, Mastering mastering) {
    rate = project.sampleRate();
    leftFilter = new KWeighting(rate);
    rightFilter = new KWeighting(rate);
    read = new float[2][rate];
    left = new float[rate + 2 * MARGIN];
    right = new float[rate + 2 * MARGIN];
    long first = (long) firstPiece * rate;
    int early = (int) Math.min(first, before(mastering));
    Mixer mixer = Mixer.of(project, library);
    mix =
        new Mastering.Stream(mastering, mixer::render, first - early, project.lengthFrames(), rate);
    for (int done = 0; done < early; ) {
      int n = Math.min(rate, early - done);
      mix.read(n, read[0], read[1]);
      KWeighting.squares(leftFilter, rightFilter, read[0], read[1], 0, n, squares);
      keepEnd(n);
      done += n;
    }
    append(MARGIN, MARGIN);
  }

  private int before(Mastering mastering) {
    return mastering.ceilingDbtp().isPresent()
        ? (int) Math.round(RECOVERED_SECONDS * rate)
        : preroll(rate);
  }

  /** How early a film has to be begun for its loudness to be right. */
  static int preroll(int sampleRate) {
    return sampleRate / 4;
  }

  /** Keeps the end of what was read as what lies before the second. */
  private void keepEnd(int n) {
    int kept = Math.min(n, MARGIN);
    System.arraycopy(read[0], n - kept, left, MARGIN - kept, kept);
    System.arraycopy(read[1], n - kept, right, MARGIN - kept, kept);
  }

  private void append(int at, int n) {
    mix.read(n, read[0], read[1]);
    System.arraycopy(read[0], 0, left, at, n);
    System.arraycopy(read[1], 0, right, at, n);
  }

  /** Measures the next second. */
  Piece next() {
    append(2 * MARGIN, rate);
    float[] energies = new float[HOPS];
    for (int hop = 0; hop < HOPS; hop++) {
      int from = hop * rate / HOPS;
      int n = (hop + 1) * rate / HOPS - from;
      KWeighting.squares(leftFilter, rightFilter, left, right, MARGIN + from, n, squares);
      energies[hop] = (float) ((squares[0] + squares[1]) / n);
    }
    float peak = Math.max(peakOf(left, 0), peakOf(right, 0));
    System.arraycopy(left, rate, left, 0, 2 * MARGIN);
    System.arraycopy(right, rate, right, 0, 2 * MARGIN);
    return new Piece(energies, peak, true, Optional.empty());
  }

  /**
   * The true peak of samples, of which the filter takes some at both ends.
   *
   * @param least what is given when it is lower
   */
  static float peakOf(float[] samples, float least) {
    TruePeakMeter meter = TruePeakMeter.from(least);
    meter.add(samples, 0, samples.length);
    return (float) meter.truePeakSoFar();
  }

  /** The true peak of a second of a mix, or {@code least} when it is lower. */
  static float peakOf(Mixer mix, int piece, int rate, long length, float least) {
    float[] left = new float[rate + 2 * MARGIN];
    float[] right = new float[rate + 2 * MARGIN];
    long start = (long) piece * rate;
    int before = (int) Math.min(start, MARGIN);
    int n = (int) Math.min((long) before + rate + MARGIN, length - start + before);
    float[][] read = new float[2][n];
    mix.render(start - before, n, read[0], read[1]);
    System.arraycopy(read[0], 0, left, MARGIN - before, n);
    System.arraycopy(read[1], 0, right, MARGIN - before, n);
    return Math.max(peakOf(left, least), peakOf(right, least));
  }
}

package hushrise.core.loudness;

import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
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

  /** Parts of a second of which the peaks are known one by one, where that is asked for. */
  static final int CELLS = 50;

  /** How many frames peaks look past both ends. */
  static final int MARGIN = 32;

  private static final double RECOVERED_SECONDS = 1.2;

  /**
   * One second.
   *
   * @param energies the K-weighted mean square of each tenth, both channels added
   * @param peaks of each of its equal parts an amplitude that its true peak does not pass; one of
   *     the whole second, or {@link #CELLS}
   * @param exact whether the largest of these is the true peak of the second
   * @param shares what each track gives to it, when that is known
   */
  @SuppressWarnings("ArrayRecordComponent") // never compared
  record Piece(float[] energies, float[] peaks, boolean exact, Optional<TrackShares> shares) {

    /** The true peak, or what it does not pass when this is not exact. */
    float truePeak() {
      return largest(peaks);
    }

    /** The same with other peaks. */
    Piece withPeaks(float[] others, boolean areExact) {
      return new Piece(energies, others, areExact, shares);
    }

    /** The same, just measured with these factors. */
    Piece withShares(Optional<TrackShares> known, TrackFactors factors) {
      return new Piece(energies, peaks, exact, known.map(s -> s.measuredWith(factors, peaks)));
    }

    Piece times(double factor) {
      return new Piece(
          times(energies, factor * factor), times(peaks, factor), exact, Optional.empty());
    }

    private static float[] times(float[] values, double factor) {
      float[] product = values.clone();
      for (int i = 0; i < product.length; i++) {
        product[i] *= (float) factor;
      }
      return product;
    }
  }

  /** The largest of some amplitudes. */
  static float largest(float[] amplitudes) {
    float largest = 0;
    for (float amplitude : amplitudes) {
      largest = Math.max(largest, amplitude);
    }
    return largest;
  }

  private final int rate;
  private final Mastering.Stream mix;
  private final KWeighting leftFilter;
  private final KWeighting rightFilter;
  private final TruePeakMeter meter = new TruePeakMeter();
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

  /**
   * Measures the next second.
   *
   * @param parts of how many equal parts of it the peaks are wanted
   */
  Piece next(int parts) {
    append(2 * MARGIN, rate);
    float[] energies = new float[HOPS];
    for (int hop = 0; hop < HOPS; hop++) {
      int from = hop * rate / HOPS;
      int n = (hop + 1) * rate / HOPS - from;
      KWeighting.squares(leftFilter, rightFilter, left, right, MARGIN + from, n, squares);
      energies[hop] = (float) ((squares[0] + squares[1]) / n);
    }
    float[] peaks = new float[parts];
    for (int part = 0; part < parts; part++) {
      int from = part * rate / parts;
      int n = (part + 1) * rate / parts - from + 2 * MARGIN;
      peaks[part] = meter.within(right, from, n, meter.within(left, from, n, 0));
    }
    System.arraycopy(left, rate, left, 0, 2 * MARGIN);
    System.arraycopy(right, rate, right, 0, 2 * MARGIN);
    return new Piece(energies, peaks, true, Optional.empty());
  }

  /** The true peak of a part of a mix, or {@code least} when it is lower. */
  static float peakOf(Mixer mix, Span part, long length, float least) {
    int frames = (int) part.lengthFrames();
    float[] left = new float[frames + 2 * MARGIN];
    float[] right = new float[frames + 2 * MARGIN];
    int before = (int) Math.min(part.startFrame(), MARGIN);
    long start = part.startFrame() - before;
    int n = (int) Math.min((long) before + frames + MARGIN, length - start);
    float[][] read = new float[2][n];
    mix.render(start, n, read[0], read[1]);
    System.arraycopy(read[0], 0, left, MARGIN - before, n);
    System.arraycopy(read[1], 0, right, MARGIN - before, n);
    TruePeakMeter meter = new TruePeakMeter();
    return meter.within(right, 0, right.length, meter.within(left, 0, left.length, least));
  }
}

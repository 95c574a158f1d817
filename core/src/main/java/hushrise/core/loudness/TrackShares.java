package hushrise.core.loudness;

import hushrise.core.loudness.PieceMeter.Piece;
import java.util.Optional;

/**
 * What each track gives to one second of a film when it goes into the mix with the factor 1. From
 * it, the second's loudness under any other factors is reckoned without its sound: the energy of a
 * sum is the sum over all pairs of tracks of their factors times the product of their sounds. Its
 * peaks can only be bounded: they move by no more than what each track's peak is turned by.
 *
 * @param tracks ids of those that sound here, n of them
 * @param products the mean products of the K-weighted sounds of each pair, track i with track j, i
 *     not after j: two channels times {@link PieceMeter#HOPS} tenths times n (n + 1) / 2 pairs
 * @param peaks the true peaks as amplitudes: two channels times n
 * @param peaksWere what {@link Piece#peaks} were when the mix was measured last
 * @param factorsThen the factors it was measured with
 */
@SuppressWarnings("ArrayRecordComponent") // never compared
record TrackShares(
    String[] tracks, float[] products, float[] peaks, float[] peaksWere, TrackFactors factorsThen) {

  /** Reckoning may come out a little lower than measuring does. */
  private static final float ROUNDING = 1.00001f;

  TrackShares measuredWith(TrackFactors factors, float[] mixPeaks) {
    return new TrackShares(tracks, products, peaks, mixPeaks, factors);
  }

  /** The second as it is under other factors. */
  Piece under(TrackFactors factors) {
    double[] energies = new double[PieceMeter.HOPS];
    float sum = 0;
    float moved = 0;
    boolean same = true;
    int pairs = products.length / 2 / PieceMeter.HOPS;
    for (int channel = 0; channel < 2; channel++) {
      float[] is = factors.of(tracks, channel);
      float[] was = factorsThen.of(tracks, channel);
      for (int hop = 0; hop < PieceMeter.HOPS; hop++) {
        energies[hop] += energy(is, (channel * PieceMeter.HOPS + hop) * pairs);
      }
      float sumHere = 0;
      float movedHere = 0;
      for (int i = 0; i < is.length; i++) {
        float peak = peaks[channel * is.length + i];
        sumHere += is[i] * peak;
        movedHere += Math.abs(is[i] - was[i]) * peak;
        same &= is[i] == was[i];
      }
      sum = Math.max(sum, sumHere);
      moved = Math.max(moved, movedHere);
    }
    float[] rounded = new float[energies.length];
    for (int hop = 0; hop < rounded.length; hop++) {
      rounded[hop] = (float) Math.max(0, energies[hop]);
    }
    return new Piece(rounded, same ? peaksWere : atMost(sum, moved), same, Optional.of(this));
  }

  private float[] atMost(float sum, float moved) {
    float[] atMost = new float[peaksWere.length];
    for (int part = 0; part < atMost.length; part++) {
      atMost[part] = Math.min(sum, peaksWere[part] + moved) * ROUNDING;
    }
    return atMost;
  }

  private double energy(float[] factors, int at) {
    int pair = at;
    double sum = 0;
    for (int i = 0; i < factors.length; i++) {
      double half = factors[i] * products[pair] / 2;
      pair++;
      for (int j = i + 1; j < factors.length; j++) {
        half += factors[j] * products[pair];
        pair++;
      }
      sum += 2 * factors[i] * half;
    }
    return sum;
  }
}

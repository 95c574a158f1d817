package hushrise.core.loudness;

import hushrise.core.loudness.PieceMeter.Piece;
import java.util.Optional;

/**
 * What each track gives to one second of a film when it goes into the mix with the factor 1. From
 * it, the second's loudness under any other factors is reckoned without its sound: the energy of a
 * sum is the sum over all pairs of tracks of their factors times the product of their sounds. The
 * peak can only be bounded: it moves by no more than what each track's peak is turned by.
 *
 * @param tracks ids of those that sound here, n of them
 * @param products the mean products of the K-weighted sounds of each pair, track i with track j, i
 *     not after j: two channels times {@link PieceMeter#HOPS} tenths times n (n + 1) / 2 pairs
 * @param peaks the true peaks as amplitudes: two channels times n
 * @param peakWas the true peak of the mix when it was measured last
 * @param factorsThen the factors it was measured with
 */
@SuppressWarnings("ArrayRecordComponent") // never compared
record TrackShares(
    String[] tracks, float[] products, float[] peaks, float peakWas, TrackFactors factorsThen) {

  TrackShares measuredWith(TrackFactors factors, float peak) {
    return new TrackShares(tracks, products, peaks, peak, factors);
  }

  /** The second as it is under other factors. */
  Piece under(TrackFactors factors) {
    double[] energies = new double[PieceMeter.HOPS];
    float atMost = 0;
    boolean same = true;
    int pairs = products.length / 2 / PieceMeter.HOPS;
    for (int channel = 0; channel < 2; channel++) {
      float[] is = factors.of(tracks, channel);
      float[] was = factorsThen.of(tracks, channel);
      for (int hop = 0; hop < PieceMeter.HOPS; hop++) {
        energies[hop] += energy(is, (channel * PieceMeter.HOPS + hop) * pairs);
      }
      float sum = 0;
      float moved = peakWas;
      for (int i = 0; i < is.length; i++) {
        float peak = peaks[channel * is.length + i];
        sum += is[i] * peak;
        moved += Math.abs(is[i] - was[i]) * peak;
        same &= is[i] == was[i];
      }
      atMost = Math.max(atMost, Math.min(sum, moved));
    }
    float[] rounded = new float[energies.length];
    for (int hop = 0; hop < rounded.length; hop++) {
      rounded[hop] = (float) Math.max(0, energies[hop]);
    }
    return new Piece(rounded, same ? peakWas : atMost, same, Optional.of(this));
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

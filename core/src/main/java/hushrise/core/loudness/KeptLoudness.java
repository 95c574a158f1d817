package hushrise.core.loudness;

import hushrise.core.loudness.PieceMeter.Piece;
import java.util.Arrays;
import java.util.Optional;

/**
 * What has to be kept of a measured film to know its loudness again. What each track gives to it is
 * not.
 *
 * @param energies the mean K-weighted squares of each tenth of a second, ten for each second begun
 * @param peaks the highest true peak of each second, as an amplitude; negative where only a bound
 *     of it was known
 */
@SuppressWarnings("ArrayRecordComponent") // never compared
public record KeptLoudness(float[] energies, float[] peaks) {

  public KeptLoudness {
    energies = energies == null ? new float[0] : energies;
    peaks = peaks == null ? new float[0] : peaks;
  }

  static KeptLoudness of(Piece[] pieces) {
    float[] energies = new float[pieces.length * PieceMeter.HOPS];
    float[] peaks = new float[pieces.length];
    for (int i = 0; i < pieces.length; i++) {
      Piece piece = pieces[i];
      System.arraycopy(piece.energies(), 0, energies, i * PieceMeter.HOPS, PieceMeter.HOPS);
      peaks[i] = piece.exact() ? piece.truePeak() : -piece.truePeak();
    }
    return new KeptLoudness(energies, peaks);
  }

  /** The seconds that were kept; empty when the two do not belong together. */
  Optional<Piece[]> pieces() {
    if (energies.length != peaks.length * PieceMeter.HOPS) {
      return Optional.empty();
    }
    Piece[] pieces = new Piece[peaks.length];
    for (int i = 0; i < pieces.length; i++) {
      int from = i * PieceMeter.HOPS;
      float[] own = Arrays.copyOfRange(energies, from, from + PieceMeter.HOPS);
      pieces[i] =
          new Piece(own, new float[] {Math.abs(peaks[i])}, !(peaks[i] < 0), Optional.empty());
    }
    return Optional.of(pieces);
  }
}

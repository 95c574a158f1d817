package hushrise.core.loudness;

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
}

package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.LevelEdits;
import hushrise.core.loudness.FilmLoudness;
import java.util.List;
import java.util.Optional;

/**
 * A true peak of the mix over the limit of -1 dBTP (EBU R 128). The one rule that has to hear the
 * film itself, so it is asked apart from the others, once the film has been measured.
 */
public final class PeakOver {

  /** Its name among the rules. */
  public static final String ID = "mix.peak";

  /** The highest true peak that is fine, in dBTP. */
  public static final double LIMIT_DBTP = -1;

  private static final double TOLERANCE_DB = 0.01;

  private PeakOver() {}

  /** Looks at the highest peak of a film that was measured. */
  public static Optional<Finding> hear(FilmLoudness film) {
    double peak = film.truePeakDbtp();
    if (!(peak > LIMIT_DBTP + TOLERANCE_DB)) {
      return Optional.empty();
    }
    double over = peak - LIMIT_DBTP;
    return Optional.of(
        new Finding(
            ID,
            "mix",
            film.truePeakPlace(),
            "",
            List.of(peak, LIMIT_DBTP),
            List.of(
                new Remedy(
                    "remedy.lowerMix",
                    List.of(over),
                    now -> LevelEdits.setMaster(now, now.masterDb() - over - TOLERANCE_DB)))));
  }
}

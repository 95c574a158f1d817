package hushrise.core.ear;

import hushrise.core.Decibels;
import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.LevelEdits;
import hushrise.core.loudness.TruePeakMeter;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.sound.Blocks;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;

/**
 * A true peak of the mix over the limit of -1 dBTP (EBU R 128). The one rule that has to render the
 * film, so it is asked apart from the others.
 */
public final class PeakOver {

  /** Its name among the rules. */
  public static final String ID = "mix.peak";

  /** The highest true peak that is fine, in dBTP. */
  public static final double LIMIT_DBTP = -1;

  private static final double TOLERANCE_DB = 0.01;

  private PeakOver() {}

  /**
   * Looks through the whole film for its highest peak.
   *
   * @param progress may end it
   */
  public static Optional<Finding> hear(Project project, SoundLibrary library, Progress progress) {
    Mixer mixer = Mixer.of(project, library);
    TruePeakMeter left = new TruePeakMeter();
    TruePeakMeter right = new TruePeakMeter();
    long length = project.lengthFrames();
    double[] highest = {0};
    long[] place = {0};
    Blocks.each(
        new Span(0, length),
        mixer::render,
        (planar, n, at) -> {
          progress.at(at / (double) length);
          left.add(planar[0], 0, n);
          right.add(planar[1], 0, n);
          double now = Math.max(left.truePeak(), right.truePeak());
          if (now > highest[0]) {
            highest[0] = now;
            place[0] = at;
          }
        });
    double peak = Decibels.ofFactor(highest[0]);
    if (!(peak > LIMIT_DBTP + TOLERANCE_DB)) {
      return Optional.empty();
    }
    double over = peak - LIMIT_DBTP;
    return Optional.of(
        new Finding(
            ID,
            "mix",
            Span.ofLength(place[0], Blocks.FRAMES),
            "",
            List.of(peak, LIMIT_DBTP),
            List.of(
                new Remedy(
                    "remedy.lowerMix",
                    List.of(over),
                    now -> LevelEdits.setMaster(now, now.masterDb() - over - TOLERANCE_DB)))));
  }
}

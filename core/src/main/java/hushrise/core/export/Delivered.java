package hushrise.core.export;

import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.loudness.Measurement;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * What became of an export.
 *
 * @param before the mix by itself
 * @param measurement the sound as it was delivered: decoded again where a loudness was asked for,
 *     else the mix
 * @param goal what was asked for
 * @param limiterMostDb how far the limiter turned down at most
 * @param limiterActiveSeconds for how long it turned anything down
 * @param pictureCopied whether the picture's packets went along untouched
 * @param outputs all files that were written
 * @param notes what has to be said besides, in sentences
 */
public record Delivered(
    Measurement before,
    Measurement measurement,
    Optional<LoudnessGoal> goal,
    double limiterMostDb,
    double limiterActiveSeconds,
    boolean pictureCopied,
    List<Path> outputs,
    List<String> notes) {

  public Delivered {
    outputs = List.copyOf(outputs);
    notes = List.copyOf(notes);
  }

  /** This with other files. */
  public Delivered with(List<Path> files) {
    return new Delivered(
        before,
        measurement,
        goal,
        limiterMostDb,
        limiterActiveSeconds,
        pictureCopied,
        files,
        notes);
  }
}

package hushrise.core.loudness;

import hushrise.core.loudness.PieceMeter.Piece;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.Arrays;
import java.util.Comparator;
import java.util.stream.IntStream;

/**
 * The search for the highest true peak of a film of which some seconds have been reckoned, so that
 * only bounds of their peaks are known: it measures those parts whose bounds pass the highest peak
 * found so far, until none does.
 */
final class HighestPeak {

  /** So many seconds are looked into by one thread in one go, once more than a few have to be. */
  private static final int MOST_AT_ONCE = 40;

  private static final int THREADS = Runtime.getRuntime().availableProcessors();

  private HighestPeak() {}

  /**
   * Looks where the highest peak may be until it is known, the likeliest first.
   *
   * @param pieces all seconds of the film; of those looked into more is known afterwards
   */
  static void find(Project project, Piece[] pieces, SoundLibrary library, Progress progress) {
    int most = 1;
    while (true) {
      float highest = in(pieces);
      double[] atMost =
          Arrays.stream(pieces).mapToDouble(p -> p.exact() ? 0 : p.truePeak()).toArray();
      int[] candidates =
          IntStream.range(0, pieces.length)
              .filter(i -> atMost[i] > highest)
              .boxed()
              .sorted(Comparator.comparingDouble(i -> -atMost[i]))
              .limit(most * THREADS)
              .mapToInt(i -> i)
              .toArray();
      if (candidates.length == 0) {
        return;
      }
      IntStream.range(0, THREADS)
          .parallel()
          .forEach(
              thread -> {
                Mixer mixer = Mixer.of(project.withMasterDb(0), library);
                for (int c = thread; c < candidates.length; c += THREADS) {
                  progress.at(1);
                  int i = candidates[c];
                  pieces[i] = lookedInto(project, mixer, i, pieces[i], highest);
                }
              });
      most = Math.min(2 * most, MOST_AT_ONCE);
    }
  }

  /** The highest true peak of those that are known, as an amplitude. */
  static float in(Piece[] pieces) {
    float highest = 0;
    for (Piece piece : pieces) {
      highest = piece.exact() ? Math.max(highest, piece.truePeak()) : highest;
    }
    return highest;
  }

  /** A second whose peaks were measured where they might pass the highest that is known. */
  private static Piece lookedInto(
      Project project, Mixer mixer, int second, Piece piece, float highest) {
    float[] peaks = piece.peaks().clone();
    long start = (long) second * project.sampleRate();
    for (int part = 0; part < peaks.length; part++) {
      if (peaks[part] > highest) {
        long from = start + (long) part * project.sampleRate() / peaks.length;
        long to = start + (long) (part + 1) * project.sampleRate() / peaks.length;
        long end = Math.min(to, project.lengthFrames());
        peaks[part] =
            from < end
                ? PieceMeter.peakOf(mixer, new Span(from, end), project.lengthFrames(), highest)
                : 0;
      }
    }
    return piece.withPeaks(peaks, PieceMeter.largest(peaks) > highest);
  }
}

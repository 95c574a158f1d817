package hushrise.core.fit;

import hushrise.core.project.timeline.Clip;
import java.util.OptionalLong;

/**
 * Where a trimmed song's fade-out should begin: at the quietest bar line, or beat, before the next
 * peak, so that the music does not swell just as it leaves.
 */
public final class TrimAdvice {

  private static final double LATEST_SECONDS = 1.0;
  private static final double EARLIEST_SECONDS = 9.0;
  private static final double WORTH_OF_BAR_LINE_DB = 3;

  private TrimAdvice() {}

  /** The clip frame at which to begin fading; empty where the song says nothing about it. */
  public static OptionalLong fadeStart(SongAnalysis song, Clip clip) {
    long earliest = clip.lengthFrames() - Math.round(EARLIEST_SECONDS * song.sampleRate());
    long latest = clip.lengthFrames() - Math.round(LATEST_SECONDS * song.sampleRate());
    double best = Double.POSITIVE_INFINITY;
    OptionalLong found = OptionalLong.empty();
    for (int edge = 1; edge < song.stretches(); edge++) {
      long at = song.edges()[edge] - clip.mediaStartFrame();
      if (at < Math.max(earliest, 0) || at > latest) {
        continue;
      }
      double follows = song.levelDb()[edge];
      double before = song.levelDb()[edge - 1];
      double rise = Math.max(0, follows - before);
      double value =
          0.5 * (follows + before) + rise - (song.isBarLine(edge) ? WORTH_OF_BAR_LINE_DB : 0);
      if (value < best - 1e-6) {
        best = value;
        found = OptionalLong.of(at);
      }
    }
    return found;
  }
}

package hushrise.core.fit;

import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.Jump;

/** Which jumps a fit allows within a song, and what each costs. */
final class Jumps {

  /** What a jump that a person moved by hand is worth against one that was found. */
  private static final double PREFERENCE = 0.5;

  private final Song song;
  private final SongAnalysis analysis;
  private final Fit fit;
  private final int introEdge;
  private final int outroEdge;
  private final long near;

  Jumps(Song song, Fit fit) {
    this.song = song;
    this.analysis = song.analysis();
    this.fit = fit;
    this.near = analysis.usualStretch() / 2;
    int last = analysis.stretches() - 1;
    introEdge =
        fit.introFrames() == 0
            ? 1
            : Math.clamp(
                analysis.edgeNear(analysis.soundStart() + fit.introFrames()), 1, Math.max(1, last));
    outroEdge =
        fit.outroFrames() == 0
            ? last
            : Math.clamp(
                analysis.edgeNear(analysis.soundEnd() - fit.outroFrames()), 1, Math.max(1, last));
  }

  /** The first edge to which a jump may lead. */
  int introEdge() {
    return introEdge;
  }

  /** The last edge from which a jump may lead. */
  int outroEdge() {
    return outroEdge;
  }

  /** The cost of a jump, or infinity where it is not allowed. */
  double cost(int from, int to) {
    if (to < introEdge || to > outroEdge || from > outroEdge || from < 1) {
      return Double.POSITIVE_INFINITY;
    }
    if (!fit.rejected().isEmpty() || !fit.preferred().isEmpty()) {
      Jump jump = new Jump(analysis.edges()[from], analysis.edges()[to]);
      if (fit.preferred().stream().anyMatch(j -> j.isNear(jump, near))) {
        return song.likeness().cost(from, to) - PREFERENCE;
      }
      if (fit.rejected().stream().anyMatch(j -> j.isNear(jump, near))) {
        return Double.POSITIVE_INFINITY;
      }
    }
    return song.likeness().cost(from, to);
  }
}

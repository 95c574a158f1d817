package hushrise.core.fit;

import hushrise.core.Problem;
import java.util.ArrayList;
import java.util.List;

/**
 * Repeats a song from one place: the one where all its repeats together cost least, each costing
 * what it changes in sound and a good deal for being one. A long loop that is hardly heard thus
 * beats a short one that is not heard at all, but comes round again and again.
 */
final class LoopFit {

  private static final double COST_OF_REPEATING = 0.07;
  private static final int FEWEST_BEATS = 8;
  private static final double SHORTEST_SECONDS = 4;
  private static final int MOST_SEAMS = 10_000;

  private LoopFit() {}

  /**
   * The song at a length.
   *
   * @param name what a person knows it as
   * @throws Problem when there is no place to go back from
   */
  static Arrangement arrange(Song song, Song.Wish wish, String name) {
    long mediaStartFrame = wish.mediaStartFrame();
    long lengthFrames = wish.lengthFrames();
    Cover cover = new Cover(wish.covered());
    SongAnalysis analysis = song.analysis();
    long shortest =
        Math.min(
            analysis.hasBeat()
                ? FEWEST_BEATS * analysis.usualStretch()
                : analysis.frames(SHORTEST_SECONDS),
            (analysis.soundEnd() - analysis.soundStart()) / 4);
    double best = Double.POSITIVE_INFINITY;
    Joint found = null;
    Joints joints = new Joints(analysis, wish.fit());
    List<Joint> all = joints.byGain();
    for (Joint joint : all.subList(joints.firstGaining(shortest), all.size())) {
      long first = joint.fromFrame() - mediaStartFrame;
      if (first <= 0) {
        continue;
      }
      double cost = COST_OF_REPEATING + cover.costAt(first, joint.cost());
      for (long at = first + joint.gain(); at < lengthFrames && cost < best; at += joint.gain()) {
        cost += COST_OF_REPEATING + cover.costAt(at, joint.cost());
      }
      if (cost < best) {
        best = cost;
        found = joint;
      }
    }
    if (found == null) {
      throw new Problem(
          "No place is left from which %s could repeat: protect less of it, or give rejected seams back."
              .formatted(name));
    }
    Splice splice = song.splice(found);
    List<Splice> repeats = new ArrayList<>();
    long first = splice.fromFrame() - mediaStartFrame;
    long period = splice.fromFrame() - splice.toFrame();
    for (long at = first;
        at - splice.crossfadeFrames() / 2 < lengthFrames && repeats.size() < MOST_SEAMS;
        at += period) {
      repeats.add(splice);
    }
    return new Arrangement(
        mediaStartFrame, lengthFrames, 0, Arrangement.seamsOf(mediaStartFrame, repeats));
  }
}

package hushrise.core.fit;

import hushrise.core.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Repeats a song from one place: the one where all its repeats together cost least, each costing
 * what it changes in sound and a good deal for being one. A long loop that is hardly heard thus
 * beats a short one that is not heard at all, but comes round again and again.
 *
 * <p>Where nothing in the song comes again, its ending is laid over its beginning for some seconds:
 * speech, ambience and free playing have no place for a short join.
 */
final class LoopFit {

  private static final double COST_OF_REPEATING = 0.07;

  /** Two sounds that cross over for seconds are heard, but not as a jump: the word is faint. */
  private static final double LONG_CROSSFADE_SCORE = 0.5;

  private static final int FEWEST_BEATS = 8;
  private static final double SHORTEST_SECONDS = 4;

  /** How long the ending lies over the beginning where nothing comes again. */
  private static final double LONG_CROSSFADE_SECONDS = 6;

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
    boolean repeats = analysis.echoes().repeats() || !wish.fit().preferred().isEmpty();
    Splice splice;
    if (repeats && found != null) {
      splice = song.splice(found);
    } else if (!repeats) {
      splice = endOverBeginning(song, wish);
    } else {
      throw new Problem(
          "No place is left from which %s could repeat: protect less of it, or give rejected seams back."
              .formatted(name));
    }
    List<Splice> repeated = new ArrayList<>();
    long first = splice.fromFrame() - mediaStartFrame;
    long period = splice.fromFrame() - splice.toFrame();
    for (long at = first;
        at - splice.crossfadeFrames() / 2 < lengthFrames && repeated.size() < MOST_SEAMS;
        at += period) {
      repeated.add(splice);
    }
    return new Arrangement(
        mediaStartFrame, lengthFrames, 0, Arrangement.seamsOf(mediaStartFrame, repeated));
  }

  private static Splice endOverBeginning(Song song, Song.Wish wish) {
    SongAnalysis analysis = song.analysis();
    long begins = Math.max(analysis.soundStart(), wish.mediaStartFrame());
    long own = analysis.soundEnd() - begins;
    long crossfade = Math.max(2, Math.min(analysis.frames(LONG_CROSSFADE_SECONDS), own / 4));
    return new Splice(
        analysis.soundEnd() - crossfade / 2,
        begins + crossfade / 2,
        crossfade,
        0,
        LONG_CROSSFADE_SCORE,
        Optional.empty());
  }
}

package hushrise.core.fit;

import hushrise.core.Problem;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * Brings a song to a length by jumping inside it, so that its own beginning and ending are kept.
 *
 * <p>All jumps are chosen together by dynamic programming over the time played (R. Bellman, 1957):
 * of the ways that have just made the same jump after nearly the same time the cheapest is kept. A
 * way ends by playing on to the song's end, with or without one more jump, for which the echoes of
 * just the lag that is missing are looked through. Playing on costs nothing; a jump costs what it
 * changes in sound, a little for being one, and more for leading back only a little or leaving out
 * much. What is missing to the wanted length in the end, less than a beat, is a pause before the
 * first note; a hundredth of a second too much is cut off it. Where the fit has leeway, a way may
 * also end sooner, or later: then its ending is cut off and has to be faded.
 */
final class TailorFit {

  private static final int JOINTS = 300;
  private static final int MOST_TIMES = 1_200;
  private static final double TIME_SECONDS = 0.25;
  private static final int TRIED = 1_500;
  private static final double PLAY_ON_SECONDS = 2.5;
  private static final double SHORTEST_SECONDS = 2;
  private static final double COST_OF_JUMPING = 0.25;
  private static final double COST_OF_PAUSE = 0.15;

  /** So much may be cut off the first note: the sound's start is known to 10 ms only. */
  private static final double LEAST_CUT_SECONDS = 0.01;

  /** What it costs to miss the length by all of the leeway, and what to lose the ending at all. */
  private static final double COST_OF_MISSING = 1;

  private static final double COST_OF_CUTTING = 0.5;

  /** The longest pause before the first note in beats. */
  private static final double LONGEST_PAUSE = 1.05;

  /** What hearing just the same again costs when it was only a moment long. */
  private static final double COST_OF_REPEATING_AT_ONCE = 2;

  private static final double LONG_AGO_SECONDS = 8;

  /** What leaving out the whole song would cost. */
  private static final double COST_OF_LEAVING_OUT = 0.5;

  private static final int NONE = -1;

  /**
   * A way to the song's end.
   *
   * @param state the last jump but one, and when; {@link #NONE} without one
   * @param last the last jump; null without any
   */
  private record End(double cost, int state, Joint last) {}

  private final Song song;
  private final SongAnalysis analysis;
  private final Joints joints;
  private final Cover cover;
  private final String name;
  private final long wanted;
  private final long own;
  private final long playOn;
  private final long longestPause;

  /** How far from the longest pause and from none a way is planned, as aligning shifts it. */
  private final long margin;

  private final long leastCut;
  private final long leeway;
  private final long step;
  private final List<Joint> known;
  private final int times;

  /**
   * The least cost of having made a jump (rows) at a time (columns), how long that played exactly,
   * and after which state.
   */
  private final float[] cost;

  private final long[] played;
  private final int[] before;

  private final List<End> ends = new ArrayList<>();
  private double worstKept = Double.POSITIVE_INFINITY;

  private TailorFit(Song song, Song.Wish wish, String name) {
    this.song = song;
    this.analysis = song.analysis();
    this.joints = new Joints(analysis, wish.fit());
    this.cover = new Cover(wish.covered());
    this.name = name;
    this.wanted = wish.lengthFrames();
    own = analysis.soundEnd() - analysis.soundStart();
    playOn = Math.min(analysis.frames(PLAY_ON_SECONDS), own / 8);
    longestPause = Math.round(LONGEST_PAUSE * analysis.usualStretch());
    margin = analysis.usualStretch() / 50;
    leastCut = analysis.frames(LEAST_CUT_SECONDS);
    leeway = wish.fit().leewayFrames().orElse(0L);
    step = Math.max(analysis.frames(TIME_SECONDS), Math.ceilDiv(wanted, MOST_TIMES));
    known = joints.best(JOINTS, Math.min(analysis.frames(SHORTEST_SECONDS), own / 8));
    times = (int) (wanted / step) + 1;
    cost = new float[known.size() * times];
    played = new long[cost.length];
    before = new int[cost.length];
    Arrays.fill(cost, Float.POSITIVE_INFINITY);
  }

  /**
   * The song at a length.
   *
   * @param name what a person knows it as
   * @throws Problem when it cannot be brought to that length
   */
  static Arrangement arrange(Song song, Song.Wish wish, String name) {
    return new TailorFit(song, wish, name).arrange();
  }

  private Arrangement arrange() {
    goOn(NONE, analysis.soundStart(), 0, 0);
    for (int time = 0; time < times; time++) {
      for (int j = 0; j < known.size(); j++) {
        int state = j * times + time;
        if (cost[state] < worstKept) {
          goOn(state, known.get(j).toFrame(), played[state], cost[state]);
        }
      }
    }
    ends.sort(Comparator.comparingDouble(End::cost));
    for (End end : ends.subList(0, Math.min(TRIED, ends.size()))) {
      List<Splice> splices = jumps(end).stream().map(song::splice).toList();
      long missing =
          wanted - Arrangement.lengthOf(analysis.soundStart(), analysis.soundEnd(), splices);
      if (missing >= -leastCut && missing <= longestPause) {
        long pause = Math.max(0, missing);
        long start = analysis.soundStart() + pause - missing;
        return new Arrangement(start, wanted - pause, pause, Arrangement.seamsOf(start, splices));
      }
      if (Math.abs(missing) <= leeway) {
        long start = analysis.soundStart();
        return new Arrangement(
            start,
            wanted - Math.max(0, missing),
            0,
            Arrangement.seamsOf(start, splices),
            Math.max(0, -missing));
      }
    }
    throw impossible();
  }

  private List<Joint> jumps(End end) {
    List<Joint> jumps = new ArrayList<>();
    if (end.last() != null) {
      jumps.add(end.last());
    }
    for (int state = end.state(); state != NONE; state = before[state]) {
      jumps.add(known.get(state / times));
    }
    return jumps.reversed();
  }

  /** Ends a way in every way it can, and makes each jump that can come next. */
  private void goOn(int state, long position, long soFar, double costSoFar) {
    end(state, position, soFar, costSoFar);
    for (int j = 0; j < known.size(); j++) {
      Joint joint = known.get(j);
      if (joint.fromFrame() < position + playOn) {
        continue;
      }
      long then = soFar + joint.fromFrame() - position;
      double with = costSoFar + costOf(joint, then);
      int time = (int) (then / step);
      if (then + playOn > wanted || with >= worstKept) {
        continue;
      }
      int next = j * times + time;
      if (with < cost[next]) {
        cost[next] = (float) with;
        played[next] = then;
        before[next] = state;
      }
    }
  }

  private void end(int state, long position, long soFar, double costSoFar) {
    long missing = wanted - soFar - (analysis.soundEnd() - position);
    long least = state == NONE ? 0 : margin;
    if (missing >= Math.min(least, margin - leeway) && missing <= mostMissing()) {
      keep(new End(costSoFar + costOfMissing(missing), state, null));
    }
    List<Joint> all = joints.byGain();
    for (int j = joints.firstGaining(missing - mostMissing());
        j < all.size() && all.get(j).gain() <= missing + Math.max(leeway - margin, -margin);
        j++) {
      Joint joint = all.get(j);
      if (joint.fromFrame() >= position + playOn) {
        long lacking = missing - joint.gain();
        long then = soFar + joint.fromFrame() - position + Math.clamp(lacking, 0, longestPause);
        double with = costSoFar + costOf(joint, then) + costOfMissing(lacking);
        if (with < worstKept && then + playOn <= wanted) {
          keep(new End(with, state, joint));
        }
      }
    }
  }

  private void keep(End end) {
    ends.add(end);
    if (ends.size() >= 4 * TRIED) {
      ends.sort(Comparator.comparingDouble(End::cost));
      ends.subList(TRIED, ends.size()).clear();
      worstKept = ends.getLast().cost();
    }
  }

  /** How much may be missing to the wanted length, as planned. */
  private long mostMissing() {
    return Math.max(longestPause, leeway) - margin;
  }

  /**
   * What it costs that something is missing to the wanted length.
   *
   * @param frames less than 0: so much is too much
   */
  private double costOfMissing(long frames) {
    if (frames >= 0 && frames <= longestPause) {
      return COST_OF_PAUSE * frames / longestPause;
    }
    return COST_OF_MISSING * Math.abs(frames) / Math.max(1, leeway)
        + (frames < 0 ? COST_OF_CUTTING : 0);
  }

  /** What a jump costs when it is made after so much has played. */
  private double costOf(Joint joint, long then) {
    double seconds = Math.abs(joint.gain()) / (double) analysis.sampleRate();
    double extra =
        joint.gain() > 0
            ? COST_OF_REPEATING_AT_ONCE * Math.exp(-seconds / LONG_AGO_SECONDS)
            : COST_OF_LEAVING_OUT * -joint.gain() / own;
    return Math.max(0.01, COST_OF_JUMPING + cover.costAt(then, joint.cost()) + extra);
  }

  private Problem impossible() {
    double rate = analysis.sampleRate();
    return new Problem(
        "%s (%.1f s) cannot be tailored to %.1f s with its own beginning and ending: %s; choose trim or loop, protect less of it, or give rejected seams back."
            .formatted(
                name,
                own / rate,
                wanted / rate,
                wanted < own
                    ? "too little would be left between them"
                    : "it has no places that lead back"));
  }
}

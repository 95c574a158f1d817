package hushrise.core.fit;

import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.Jump;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** Which jumps a fit allows within a song, and what each costs. */
final class Joints {

  /** How the cost of a jump becomes a score: 0.75 for the nearest 0.5 % of all pairs of places. */
  static final double STEEPNESS = 0.68;

  /** What a rank costs: its square root, so that the nearest ones can be told apart. */
  private static final double COST_OF_RANK = 6;

  /** What a jump that a person moved by hand is worth against one that was found. */
  private static final double PREFERENCE = 0.5;

  private static final double ALIKE_SECONDS = 1;

  private final SongAnalysis analysis;
  private final Echoes echoes;
  private final Fit fit;
  private final long near;
  private final long firstFrame;
  private final long lastFrame;

  Joints(SongAnalysis analysis, Fit fit) {
    this.analysis = analysis;
    this.echoes = analysis.echoes();
    this.fit = fit;
    near = analysis.usualStretch() / 2;
    firstFrame = analysis.soundStart() + Math.max(fit.introFrames(), 1);
    lastFrame = analysis.soundEnd() - Math.max(fit.outroFrames(), 1);
  }

  private long frameOf(int moment) {
    return (long) moment * analysis.sampleRate() / echoes.perSecond();
  }

  /** The jumps that make the song longer by at least one length and at most another. */
  List<Joint> gaining(long least, long most) {
    List<Joint> found = new ArrayList<>();
    if (most > 0) {
      collect(Math.max(least, 1), most, true, found);
    }
    if (least < 0) {
      collect(Math.max(-most, 1), -least, false, found);
    }
    return found;
  }

  private void collect(long leastLag, long mostLag, boolean back, List<Joint> found) {
    int from =
        echoes.firstOf((int) Math.ceilDiv(leastLag * echoes.perSecond(), analysis.sampleRate()));
    long most = mostLag * echoes.perSecond() / analysis.sampleRate();
    for (int e = from; e < echoes.size() && echoes.lags()[e] <= most; e++) {
      long early = frameOf(echoes.places()[e]);
      long late = frameOf(echoes.places()[e] + echoes.lags()[e]);
      if (early < firstFrame || late > lastFrame) {
        continue;
      }
      double cost = COST_OF_RANK * Math.sqrt(echoes.rank(e));
      Joint joint = back ? new Joint(late, early, cost) : new Joint(early, late, cost);
      allowed(joint, found);
    }
  }

  private void allowed(Joint joint, List<Joint> found) {
    Jump jump = new Jump(joint.fromFrame(), joint.toFrame());
    if (fit.preferred().stream().anyMatch(j -> j.isNear(jump, near))) {
      found.add(new Joint(joint.fromFrame(), joint.toFrame(), joint.cost() - PREFERENCE));
    } else if (fit.rejected().stream().noneMatch(j -> j.isNear(jump, near))) {
      found.add(joint);
    }
  }

  /**
   * The cheapest jumps of any length, of those that nearly are one another only the best.
   *
   * @param shortest how far they lead at least
   */
  List<Joint> best(int count, long shortest) {
    List<Joint> all = gaining(shortest, Long.MAX_VALUE / 1_000_000);
    all.addAll(gaining(-(Long.MAX_VALUE / 1_000_000), -shortest));
    all.sort(Comparator.comparingDouble(Joint::cost));
    double alike = ALIKE_SECONDS * analysis.sampleRate();
    Set<Long> seen = new HashSet<>();
    List<Joint> best = new ArrayList<>();
    for (Joint joint : all) {
      long key =
          Math.round(joint.gain() / alike) * 100_000 + Math.round(joint.toFrame() / alike / 2);
      if (seen.add(key)) {
        best.add(joint);
        if (best.size() == count) {
          break;
        }
      }
    }
    for (Jump jump : fit.preferred()) {
      best.add(new Joint(jump.fromFrame(), jump.toFrame(), 0));
    }
    return best;
  }
}

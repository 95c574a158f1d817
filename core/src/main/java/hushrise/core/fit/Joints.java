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

  /** What a jump that a person moved by hand is worth against one that was found. */
  private static final double PREFERENCE = 0.5;

  private static final double ALIKE_SECONDS = 1;

  private final SongAnalysis analysis;
  private final Echoes echoes;
  private final Fit fit;
  private final long near;
  private final long firstFrame;
  private final long lastFrame;
  private final List<Joint> byGain;

  Joints(SongAnalysis analysis, Fit fit) {
    this.analysis = analysis;
    this.echoes = analysis.echoes();
    this.fit = fit;
    near = analysis.usualStretch() / 2;
    firstFrame = analysis.soundStart() + Math.max(fit.introFrames(), 1);
    lastFrame = analysis.soundEnd() - Math.max(fit.outroFrames(), 1);
    byGain = collected();
  }

  private long frameOf(double moment) {
    return Math.round(moment * analysis.sampleRate() / echoes.perSecond());
  }

  /** All jumps, those that make the song shortest first. */
  List<Joint> byGain() {
    return byGain;
  }

  /** The first of the jumps by gain that makes the song longer by at least a length. */
  int firstGaining(long least) {
    int low = 0;
    int high = byGain.size();
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (byGain.get(middle).gain() < least) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  private List<Joint> collected() {
    List<Joint> found = new ArrayList<>();
    collect(true, found);
    collect(false, found);
    for (Jump jump : fit.preferred()) {
      found.add(new Joint(jump.fromFrame(), jump.toFrame(), -PREFERENCE, Joint.UNKNOWN));
    }
    found.sort(Comparator.comparingLong(Joint::gain));
    return found;
  }

  private void collect(boolean back, List<Joint> found) {
    for (int e = 0; e < echoes.size(); e++) {
      long early = frameOf(echoes.places()[e]);
      long late = frameOf(echoes.places()[e] + echoes.lags()[e]);
      if (early < firstFrame || late > lastFrame) {
        continue;
      }
      double apart = echoes.distances()[e];
      double cost = echoes.cost(apart);
      Joint joint =
          back ? new Joint(late, early, cost, apart) : new Joint(early, late, cost, apart);
      allowed(joint, found);
    }
  }

  private void allowed(Joint joint, List<Joint> found) {
    Jump jump = new Jump(joint.fromFrame(), joint.toFrame());
    if (fit.preferred().stream().anyMatch(j -> j.isNear(jump, near))) {
      found.add(joint.withCost(joint.cost() - PREFERENCE));
    } else if (fit.rejected().stream().noneMatch(j -> j.isNear(jump, near))) {
      found.add(joint);
    }
  }

  /**
   * The cheapest jumps: of each length the best one, then the best of all; of those that nearly are
   * one another only one.
   *
   * @param shortest how far they lead at least
   */
  List<Joint> best(int count, long shortest) {
    List<Joint> all = new ArrayList<>(byGain);
    all.removeIf(j -> Math.abs(j.gain()) < shortest);
    all.sort(Comparator.comparingDouble(Joint::cost));
    double alike = ALIKE_SECONDS * analysis.sampleRate();
    Set<Long> lengths = new HashSet<>();
    Set<List<Long>> seen = new HashSet<>();
    List<Joint> best = new ArrayList<>();
    List<Joint> further = new ArrayList<>();
    for (Joint joint : all) {
      long length = Math.round(2 * joint.gain() / alike);
      if (lengths.add(length) && best.size() < count / 2) {
        best.add(joint);
      } else if (seen.add(List.of(length, Math.round(joint.toFrame() / alike / 2)))) {
        further.add(joint);
      }
    }
    best.addAll(further.subList(0, Math.min(count - best.size(), further.size())));
    return best;
  }
}

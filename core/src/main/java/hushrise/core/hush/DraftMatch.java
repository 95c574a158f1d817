package hushrise.core.hush;

import hushrise.core.hush.HushDraft.Change;
import hushrise.core.hush.HushDraft.Line;
import hushrise.core.hush.HushDraft.Why;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Lays planned hushes over those that a track has: numbers that a person set stay. */
final class DraftMatch {

  private static final double SAME_DB = 0.05;
  private static final double SAME_SECONDS = 0.002;

  private final Project project;
  private final Track track;
  private final HushRule rule;

  DraftMatch(Project project, Track track, HushRule rule) {
    this.project = project;
    this.track = track;
    this.rule = rule;
  }

  /** Lays what is planned over the hushes that there are. */
  List<Line> lines(List<HushPlan.Planned> planned) {
    List<Hush> left = new ArrayList<>(track.hushes());
    List<Line> lines = new ArrayList<>();
    for (HushPlan.Planned plan : planned) {
      Optional<Hush> found =
          left.stream()
              .filter(h -> HushDrafter.overlap(h.passage(), plan.span()) > 0)
              .max(Comparator.comparingLong(h -> HushDrafter.overlap(h.passage(), plan.span())));
      boolean covered =
          lines.stream()
              .filter(l -> l.hush().isByHand(HushNumber.PLACE) && l.change() != Change.GONE)
              .anyMatch(
                  l ->
                      HushDrafter.overlap(l.hush().passage(), plan.span())
                          > 0.9 * plan.span().lengthFrames());
      if (found.isEmpty() && covered) {
        continue;
      }
      found.ifPresent(left::remove);
      if (plan.depthDb() < 0 || found.filter(h -> h.isByHand(HushNumber.DEPTH)).isPresent()) {
        lines.add(line(found, plan));
      } else {
        found.ifPresent(h -> lines.add(gone(h, Why.NOT_NEEDED, plan.need())));
      }
    }
    for (Hush hush : left) {
      boolean mine = hush.isByHand(HushNumber.PLACE) || hush.isByHand(HushNumber.DEPTH);
      lines.add(
          mine
              ? new Line(track.id(), Change.KEPT, Why.BY_HAND, hush, Double.NaN, Double.NaN)
              : new Line(track.id(), Change.GONE, Why.NO_PASSAGE, hush, Double.NaN, Double.NaN));
    }
    lines.sort(Comparator.comparingLong(l -> l.hush().startFrame()));
    return lines;
  }

  private Line gone(Hush hush, Why why, Need need) {
    return new Line(track.id(), Change.GONE, why, hush, need.voiceLufs(), need.backgroundLufs());
  }

  private Line line(Optional<Hush> found, HushPlan.Planned plan) {
    Hush fresh = Hush.over(plan.span(), plan.depthDb()).withTurn(rule.turn());
    Hush hush = found.map(h -> keepingByHand(h, fresh)).orElse(fresh);
    boolean byHand = hush.isByHand(HushNumber.DEPTH);
    Change change = found.isEmpty() ? Change.NEW : Change.CHANGED;
    if (found.isPresent() && isSame(found.get(), hush)) {
      hush = found.get();
      change = Change.KEPT;
    }
    return new Line(
        track.id(),
        change,
        byHand ? Why.BY_HAND : plan.why(),
        hush,
        plan.need().voiceLufs(),
        plan.need().backgroundLufs());
  }

  /** A fresh hush with the numbers that a person set on an older one. */
  static Hush keepingByHand(Hush old, Hush fresh) {
    Turn was = old.turn();
    Turn turn = fresh.turn();
    turn = old.isByHand(HushNumber.LEAD) ? turn.withLead(was.leadSeconds()) : turn;
    turn = old.isByHand(HushNumber.FALL) ? turn.withFall(was.fallSeconds()) : turn;
    turn = old.isByHand(HushNumber.TAIL) ? turn.withTail(was.tailSeconds()) : turn;
    turn = old.isByHand(HushNumber.RECOVERY) ? turn.withRecovery(was.recoverySeconds()) : turn;
    Hush hush =
        new Hush(
            old.id(), fresh.startFrame(), fresh.endFrame(), fresh.depthDb(), turn, old.byHand());
    hush = old.isByHand(HushNumber.PLACE) ? hush.withPassage(old.passage()) : hush;
    return old.isByHand(HushNumber.DEPTH) ? hush.withDepthDb(old.depthDb()) : hush;
  }

  private boolean isSame(Hush a, Hush b) {
    long near = project.frames(SAME_SECONDS);
    return a.turn().equals(b.turn())
        && Math.abs(a.depthDb() - b.depthDb()) < SAME_DB
        && Math.abs(a.startFrame() - b.startFrame()) <= near
        && Math.abs(a.endFrame() - b.endFrame()) <= near;
  }
}

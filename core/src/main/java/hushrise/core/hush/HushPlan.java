package hushrise.core.hush;

import hushrise.core.hush.HushDraft.Why;
import hushrise.core.project.Project;
import hushrise.core.project.level.HushRule;
import hushrise.core.separation.Separation;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Groups what passages ask of a track into the hushes that its rule makes of them. */
final class HushPlan {

  /** Needs of neighbours that differ by more get floors of their own, in dB. */
  static final double APART_DB = 2;

  /** A need under this is none: what is that much short of the rule still counts as clear. */
  private static final double LEAST_DB = Separation.TOLERANCE_LU;

  /** A floor between deeper ones is held for this long, or not at all: less is heard as pumping. */
  static final double SHORTEST_FLOOR_SECONDS = 2;

  /** With even depths, hushes nearer than this get one depth. */
  private static final double EVEN_WITHIN_SECONDS = 10;

  private final Project project;
  private final HushRule rule;

  HushPlan(Project project, HushRule rule) {
    this.project = project;
    this.rule = rule;
  }

  /** A passage and what it asks of a track. */
  record Asked(Span span, double depthDb, Need need) {}

  /** A hush in the making. */
  record Planned(Span span, double depthDb, Why why, Need need) {}

  /** The hushes that a rule makes of what passages ask. */
  List<Planned> hushes(List<Asked> asked) {
    long gap = project.frames(rule.shortestGapSeconds()) - 1;
    List<Planned> all = new ArrayList<>();
    List<Asked> group = new ArrayList<>();
    for (Asked one : asked) {
      boolean far =
          !group.isEmpty() && one.span().startFrame() - group.getLast().span().endFrame() > gap;
      if (far) {
        all.addAll(ofGroup(group));
        group.clear();
      }
      group.add(one);
    }
    all.addAll(ofGroup(group));
    return rule.even() ? evened(all) : all;
  }

  private List<Planned> ofGroup(List<Asked> group) {
    List<Planned> result =
        held(floors(group)).stream()
            .map(this::ofSegment)
            .collect(Collectors.toCollection(ArrayList::new));
    for (int i = 1; i < result.size(); i++) {
      Planned left = result.get(i - 1);
      Planned right = result.get(i);
      if (left.depthDb() < 0 && left.depthDb() >= right.depthDb()) {
        Span span = new Span(left.span().startFrame(), right.span().startFrame());
        result.set(i - 1, new Planned(span, left.depthDb(), left.why(), left.need()));
      } else if (right.depthDb() < 0) {
        Span span = new Span(left.span().endFrame(), right.span().endFrame());
        result.set(i, new Planned(span, right.depthDb(), right.why(), right.need()));
      }
    }
    return result;
  }

  /** Passages that follow one another and whose needs are alike share a floor. */
  private List<List<Asked>> floors(List<Asked> group) {
    List<List<Asked>> floors = new ArrayList<>();
    int first = 0;
    for (int i = 1; i <= group.size(); i++) {
      if (i == group.size() || (!rule.even() && spread(group.subList(first, i + 1)) > APART_DB)) {
        floors.add(group.subList(first, i));
        first = i;
      }
    }
    return floors;
  }

  /** Floors of which none is higher than both its neighbours for a moment only. */
  private List<List<Asked>> held(List<List<Asked>> floors) {
    List<List<Asked>> held = new ArrayList<>();
    for (List<Asked> floor : floors) {
      held.add(floor);
      while (held.size() > 2 && isMomentary(held.subList(held.size() - 3, held.size()))) {
        List<Asked> after = held.removeLast();
        List<Asked> between = held.removeLast();
        List<Asked> before = held.removeLast();
        boolean alike = Math.abs(depth(before) - depth(after)) <= APART_DB;
        if (alike) {
          held.add(joined(before, joined(between, after)));
        } else if (depth(before) > depth(after)) {
          held.addAll(List.of(joined(before, between), after));
        } else {
          held.addAll(List.of(before, joined(between, after)));
        }
      }
    }
    return held;
  }

  /** Whether the second of three floors is higher than the others, and short. */
  private boolean isMomentary(List<List<Asked>> three) {
    long up =
        three.get(2).getFirst().span().startFrame() - three.get(0).getLast().span().endFrame();
    double turns = rule.turn().tailSeconds() + rule.turn().leadSeconds();
    return up < project.frames(SHORTEST_FLOOR_SECONDS + turns)
        && depth(three.get(1)) > Math.max(depth(three.get(0)), depth(three.get(2)));
  }

  private static List<Asked> joined(List<Asked> one, List<Asked> next) {
    return Stream.concat(one.stream(), next.stream()).toList();
  }

  private static double depth(List<Asked> floor) {
    return floor.stream().mapToDouble(Asked::depthDb).min().orElse(0);
  }

  private static double spread(List<Asked> some) {
    return some.stream().mapToDouble(Asked::depthDb).max().orElse(0) - depth(some);
  }

  private Planned ofSegment(List<Asked> segment) {
    Asked neediest = segment.stream().min(Comparator.comparingDouble(Asked::depthDb)).orElseThrow();
    Span span =
        new Span(
            segment.getFirst().span().startFrame(),
            segment.stream().mapToLong(a -> a.span().endFrame()).max().orElseThrow());
    double depth = neediest.depthDb();
    double held = depth <= -LEAST_DB ? Math.min(depth, rule.shallowestDb()) : 0;
    Why why;
    if (rule.fixedDepthDb().isPresent()) {
      why = Why.FIXED;
    } else if (neediest.need().othersTooLoud()) {
      why = Why.OTHERS_TOO_LOUD;
    } else {
      why = held <= rule.deepestDb() ? Why.DEEPEST : Why.NEEDED;
    }
    return new Planned(span, held, why, neediest.need());
  }

  /** Gives hushes near one another the depth of the deepest. */
  private List<Planned> evened(List<Planned> all) {
    List<Planned> needed = all.stream().filter(p -> p.depthDb() < 0).toList();
    long near = project.frames(EVEN_WITHIN_SECONDS);
    List<Planned> result = new ArrayList<>();
    for (int first = 0, i = 1; i <= needed.size(); i++) {
      boolean ends =
          i == needed.size()
              || needed.get(i).span().startFrame() - needed.get(i - 1).span().endFrame() > near;
      if (ends) {
        List<Planned> run = needed.subList(first, i);
        double deepest = run.stream().mapToDouble(Planned::depthDb).min().orElse(0);
        run.forEach(
            p ->
                result.add(
                    new Planned(
                        p.span(), deepest, p.depthDb() == deepest ? p.why() : Why.EVEN, p.need())));
        first = i;
      }
    }
    return result;
  }
}

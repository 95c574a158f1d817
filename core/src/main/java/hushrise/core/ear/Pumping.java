package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.HushEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Music that comes up between two hushes only to go down again within two seconds: all the way, or
 * to the floor of a hush between them.
 */
final class Pumping implements EarRule {

  private static final double LONGEST_SECONDS = 2;
  private static final double LEAST_DB = 3;

  @Override
  public String id() {
    return "hush.pumping";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      List<Hush> hushes =
          track.hushes().stream().sorted(Comparator.comparingLong(Hush::startFrame)).toList();
      for (int first = 0; first < hushes.size(); first++) {
        for (int last = first + 1; last < Math.min(hushes.size(), first + 3); last++) {
          Optional<Span> up = comesUp(project, hushes.subList(first, last + 1));
          if (up.isPresent()) {
            found.add(finding(project, track, hushes.get(first).id(), up.get()));
            break;
          }
        }
      }
    }
    return found;
  }

  private Finding finding(Project project, Track track, String hushId, Span up) {
    return new Finding(
        id(),
        hushId,
        up,
        track.id(),
        List.of(project.seconds(up.lengthFrames())),
        List.of(
            new Remedy("remedy.merge", now -> HushEdits.mergeWithNext(now, track.id(), hushId))));
  }

  /** Where the level comes up between the first of some hushes and the last, for a moment. */
  private static Optional<Span> comesUp(Project project, List<Hush> hushes) {
    List<Hush.Knots> knots = hushes.stream().map(h -> h.knots(project.sampleRate())).toList();
    long from = knots.getFirst().floorEnd();
    long to = knots.getLast().floorStart();
    if (to <= from || to - from >= project.frames(LONGEST_SECONDS)) {
      return Optional.empty();
    }
    double floor = Math.max(knots.getFirst().depthDb(), knots.getLast().depthDb());
    long step = Math.max(1, (to - from) / 32);
    for (long at = from; at < to; at += step) {
      long frame = at;
      double level = knots.stream().mapToDouble(k -> k.levelDbAt(frame)).min().orElse(0);
      if (level - floor >= LEAST_DB) {
        return Optional.of(new Span(from, to));
      }
    }
    return Optional.empty();
  }
}

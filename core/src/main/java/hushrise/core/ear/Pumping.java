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

/** Music that comes up between two hushes only to go down again within two seconds. */
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
      for (int i = 1; i < hushes.size(); i++) {
        Hush.Knots left = hushes.get(i - 1).knots(project.sampleRate());
        Hush.Knots right = hushes.get(i).knots(project.sampleRate());
        long up = right.floorStart() - left.floorEnd();
        if (up > 0
            && up < project.frames(LONGEST_SECONDS)
            && highest(left, right) - Math.max(left.depthDb(), right.depthDb()) >= LEAST_DB) {
          String id = hushes.get(i - 1).id();
          found.add(
              new Finding(
                  id(),
                  id,
                  new Span(left.floorEnd(), right.floorStart()),
                  track.id(),
                  List.of(project.seconds(up)),
                  List.of(
                      new Remedy(
                          "remedy.merge", now -> HushEdits.mergeWithNext(now, track.id(), id)))));
        }
      }
    }
    return found;
  }

  /** How high the level comes between two hushes. */
  private static double highest(Hush.Knots left, Hush.Knots right) {
    double highest = Double.NEGATIVE_INFINITY;
    long step = Math.max(1, (right.floorStart() - left.floorEnd()) / 32);
    for (long at = left.floorEnd(); at < right.floorStart(); at += step) {
      highest = Math.max(highest, Math.min(left.levelDbAt(at), right.levelDbAt(at)));
    }
    return highest;
  }
}

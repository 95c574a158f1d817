package hushrise.core.ear;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import java.util.ArrayList;
import java.util.List;

/** The dips of a level line that were made keyframe by keyframe. */
final class Dips {

  /** A floor lies at least this far under both shoulders, in dB. */
  private static final double LEAST_DB = 3;

  private Dips() {}

  /**
   * One dip.
   *
   * @param left the keyframe before the floor
   * @param floor the keyframes of the floor, in order of time
   * @param right the keyframe after the floor
   */
  record Dip(Keyframe left, List<Keyframe> floor, Keyframe right) {}

  /** All dips of a line: runs of keyframes under both of their neighbours. */
  static List<Dip> of(LevelLine line) {
    List<Keyframe> all = line.keyframes();
    List<Dip> dips = new ArrayList<>();
    for (int left = 0; left + 2 < all.size(); left++) {
      double shoulder = all.get(left).levelDb();
      int right = left + 1;
      while (right < all.size() && all.get(right).levelDb() <= shoulder - LEAST_DB) {
        right++;
      }
      boolean found = right > left + 1 && right < all.size();
      if (found && isUnder(all.subList(left + 1, right), all.get(right).levelDb())) {
        dips.add(new Dip(all.get(left), List.copyOf(all.subList(left + 1, right)), all.get(right)));
        left = right - 1;
      }
    }
    return dips;
  }

  private static boolean isUnder(List<Keyframe> floor, double shoulderDb) {
    return floor.stream().allMatch(k -> k.levelDb() <= shoulderDb - LEAST_DB);
  }
}

package hushrise.core.project.level;

import hushrise.core.Ids;
import hushrise.core.time.Span;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/**
 * A dip of a background track under one passage: fall, floor, recovery, as one object.
 *
 * <pre>
 *   level
 *     0 ──────╮                        ╭──────
 *              ╲                      ╱
 *     depth     ╰────────────────────╯
 *           s−lead−fall  s−lead   e+tail   e+tail+recovery
 * </pre>
 *
 * <p>Fall and recovery are raised cosines in dB.
 *
 * @param id unique in the project
 * @param startFrame the passage's first frame (s)
 * @param endFrame the first frame after the passage (e)
 * @param depthDb how far down, at most 0
 * @param turn the four times around the passage
 * @param byHand which of its numbers a person set: a draft leaves those alone
 */
public record Hush(
    String id, long startFrame, long endFrame, double depthDb, Turn turn, Set<HushNumber> byHand) {

  public Hush {
    if (endFrame < startFrame || !(depthDb <= 0)) {
      throw new IllegalArgumentException(
          "Not a hush: " + startFrame + ".." + endFrame + " at " + depthDb + " dB");
    }
    EnumSet<HushNumber> numbers = EnumSet.noneOf(HushNumber.class);
    numbers.addAll(byHand == null ? Set.of() : byHand);
    byHand = Collections.unmodifiableSet(numbers);
  }

  /** A hush of which nobody has set a number by hand. */
  public Hush(String id, long startFrame, long endFrame, double depthDb, Turn turn) {
    this(id, startFrame, endFrame, depthDb, turn, Set.of());
  }

  public static Hush over(Span passage, double depthDb) {
    return new Hush(
        Ids.fresh("hush"), passage.startFrame(), passage.endFrame(), depthDb, Turn.DEFAULT);
  }

  public Hush withDepthDb(double newDepthDb) {
    return new Hush(id, startFrame, endFrame, Math.min(0, newDepthDb), turn, byHand);
  }

  /** Where somebody speaks. */
  public Span passage() {
    return new Span(startFrame, endFrame);
  }

  public Hush withTurn(Turn newTurn) {
    return new Hush(id, startFrame, endFrame, depthDb, newTurn, byHand);
  }

  /** With more of its numbers marked as set by hand. */
  public Hush setByHand(HushNumber... numbers) {
    EnumSet<HushNumber> more = EnumSet.copyOf(List.of(numbers));
    more.addAll(byHand);
    return withByHand(more);
  }

  public Hush withByHand(Set<HushNumber> numbers) {
    return new Hush(id, startFrame, endFrame, depthDb, turn, numbers);
  }

  public boolean isByHand(HushNumber number) {
    return byHand.contains(number);
  }

  public Hush withId(String newId) {
    return new Hush(newId, startFrame, endFrame, depthDb, turn, byHand);
  }

  /** Under another passage. */
  public Hush withPassage(Span passage) {
    return new Hush(id, passage.startFrame(), passage.endFrame(), depthDb, turn, byHand);
  }

  public Hush movedBy(long frames) {
    return new Hush(id, startFrame + frames, endFrame + frames, depthDb, turn, byHand);
  }

  /** Where the line bends, at a sample rate. */
  public Knots knots(int sampleRate) {
    long floorStart = startFrame - Math.round(turn.leadSeconds() * sampleRate);
    long floorEnd = Math.max(floorStart, endFrame + Math.round(turn.tailSeconds() * sampleRate));
    return new Knots(
        floorStart - Math.round(turn.fallSeconds() * sampleRate),
        floorStart,
        floorEnd,
        floorEnd + Math.round(turn.recoverySeconds() * sampleRate),
        depthDb);
  }

  /**
   * A hush's corners in sample frames, in order.
   *
   * @param start where the fall begins
   * @param floorStart where the floor is reached
   * @param floorEnd where the recovery begins
   * @param end where the level is back
   * @param depthDb the floor
   */
  public record Knots(long start, long floorStart, long floorEnd, long end, double depthDb) {

    /** The hush's part of the level at a time: 0 outside, {@code depthDb} on the floor. */
    public double levelDbAt(long frame) {
      if (frame < start || frame >= end) {
        return 0;
      }
      if (frame < floorStart) {
        return depthDb * SegmentShape.SMOOTH.at((frame - start) / (double) (floorStart - start));
      }
      if (frame < floorEnd) {
        return depthDb;
      }
      return depthDb * SegmentShape.SMOOTH.at((end - frame) / (double) (end - floorEnd));
    }
  }
}

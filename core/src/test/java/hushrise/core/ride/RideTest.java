package hushrise.core.ride;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.ride.Pass.Point;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

/** What a scripted hand becomes on the line. */
class RideTest {

  private static final int RATE = 48_000;
  private static final int BLOCK = 512;

  private static final LevelLine OLD =
      LevelLine.of(
          List.of(
              new Keyframe(RATE, -2, SegmentShape.SMOOTH),
              new Keyframe(6L * RATE + 3, -9, SegmentShape.STRAIGHT),
              new Keyframe(14L * RATE, 1, SegmentShape.SMOOTH),
              new Keyframe(30L * RATE, -4, SegmentShape.STRAIGHT)));

  /** A hand that wanders: a level for every block, or none while it is off the fader. */
  private static List<Point> wander(long seed, int blocks, long from) {
    Random random = new Random(seed);
    List<Point> points = new ArrayList<>();
    double db = -6;
    double speed = 0;
    for (int i = 0; i < blocks; i++) {
      if (random.nextInt(40) == 0) {
        speed = random.nextInt(3) == 0 ? 0 : (random.nextDouble() - 0.5) * 0.4;
      }
      db = Math.clamp(db + speed + (speed == 0 ? 0 : random.nextGaussian() * 0.03), -50, 6);
      points.add(new Point(from + (long) i * BLOCK, db));
    }
    return points;
  }

  private static double between(List<Point> points, long frame) {
    for (int i = 1; i < points.size(); i++) {
      Point a = points.get(i - 1);
      Point b = points.get(i);
      if (frame <= b.frame()) {
        return a.levelDb()
            + (b.levelDb() - a.levelDb()) * (frame - a.frame()) / (b.frame() - a.frame());
      }
    }
    return points.getLast().levelDb();
  }

  /** The fewest points by trying every join: slow, and plainly right. */
  private static int fewest(List<Point> points, double toleranceDb) {
    int[] joins = new int[points.size()];
    for (int k = 1; k < points.size(); k++) {
      joins[k] = Integer.MAX_VALUE;
      for (int i = 0; i < k; i++) {
        boolean fits = true;
        List<Point> join = List.of(points.get(i), points.get(k));
        for (int m = i + 1; m < k && fits; m++) {
          fits =
              Math.abs(between(join, points.get(m).frame()) - points.get(m).levelDb())
                  <= toleranceDb + 1e-9;
        }
        if (fits) {
          joins[k] = Math.min(joins[k], joins[i] + 1);
        }
      }
    }
    return joins[points.size() - 1] + 1;
  }

  @Property(tries = 60)
  void thinningKeepsWithinItsToleranceAndNeedsNoMorePointsThanTheFewest(
      @ForAll long seed, @ForAll @DoubleRange(min = 0.1, max = 3) double toleranceDb) {
    List<Point> hand = wander(seed, 130, seed & 1023);
    List<Point> thin = Thinning.of(hand, toleranceDb);
    assertThat(thin).startsWith(hand.getFirst()).endsWith(hand.getLast());
    assertThat(hand).containsAll(thin);
    for (Point p : hand) {
      assertThat(between(thin, p.frame())).isCloseTo(p.levelDb(), within(toleranceDb + 1e-9));
    }
    assertThat(thin).hasSize(fewest(hand, toleranceDb));
  }

  @Test
  void aLongRideIsThinnedInParts() {
    List<Point> hand = wander(5, 45_000, 77);
    List<Point> thin = Thinning.of(hand, 0.5);
    assertThat(thin.size()).isLessThan(hand.size() / 8);
    for (int i = 0; i < hand.size(); i += 97) {
      assertThat(LevelLine.of(asKeyframes(thin)).levelDbAt(hand.get(i).frame()))
          .isCloseTo(hand.get(i).levelDb(), within(0.5 + 1e-9));
    }
  }

  private static List<Keyframe> asKeyframes(List<Point> points) {
    return points.stream()
        .map(p -> new Keyframe(p.frame(), p.levelDb(), SegmentShape.STRAIGHT))
        .toList();
  }

  /**
   * Plays a line with a hand that holds the fader for a while.
   *
   * @param touchBlock when it takes hold
   * @param letGoBlock when it lets go
   */
  private static Pass play(
      LevelLine line, Hand hand, long from, int blocks, int touchBlock, int letGoBlock, long seed) {
    List<Point> script = wander(seed, blocks, from);
    Pass pass = new Pass();
    for (int i = 0; i < blocks; i++) {
      if (i >= touchBlock && i < letGoBlock) {
        hand.hold(script.get(i).levelDb());
      } else {
        hand.letGo();
      }
      hand.move(from + (long) i * BLOCK, BLOCK, line);
      if (i % 100 == 0) {
        hand.takeInto(pass);
      }
    }
    hand.takeInto(pass);
    return pass;
  }

  @Property(tries = 100)
  void whatTheHandDidIsOnTheLineAndTheRestIsAsItWas(
      @ForAll long seed,
      @ForAll boolean glides,
      @ForAll @LongRange(min = 0, max = 200_000) long from) {
    RideRule rule = new RideRule(0.5, glides, 0.7);
    Pass pass = play(OLD, rule.hand(RATE), from, 500, 60, 300, seed);
    LevelLine written = Ride.written(OLD, pass, rule, RATE);
    assertThat(pass.strokes()).hasSize(1);
    List<Point> stroke = pass.strokes().getFirst();
    assertThat(stroke.getFirst().frame()).isEqualTo(from + 60 * BLOCK);
    for (Point p : stroke) {
      assertThat(written.levelDbAt(p.frame())).isCloseTo(p.levelDb(), within(0.5 + 1e-6));
    }
    for (long f = 0; f < stroke.getFirst().frame(); f += 1_013) {
      assertThat(written.levelDbAt(f)).isCloseTo(OLD.levelDbAt(f), within(1e-9));
    }
    long over = stroke.getLast().frame() + rule.glideFrames(RATE);
    for (long f = over; f < 40L * RATE; f += 1_013) {
      assertThat(written.levelDbAt(f)).isCloseTo(OLD.levelDbAt(f), within(1e-9));
    }
    if (glides) {
      assertThat(stroke.getLast().levelDb())
          .as("back on the line")
          .isCloseTo(OLD.levelDbAt(stroke.getLast().frame()), within(1e-9));
    }
  }

  @Test
  void withoutATouchNothingIsWritten() {
    Pass pass = play(OLD, RideRule.DEFAULT.hand(RATE), 100, 300, 999, 999, 1);
    assertThat(pass.isEmpty()).isTrue();
    assertThat(Ride.written(OLD, pass, RideRule.DEFAULT, RATE)).isEqualTo(OLD);
  }

  @Test
  void aLevelThatStaysOnAnEmptyLineStaysToTheEnd() {
    Pass pass = play(LevelLine.EMPTY, RideRule.DEFAULT.hand(RATE), 0, 300, 100, 200, 8);
    LevelLine written = Ride.written(LevelLine.EMPTY, pass, RideRule.DEFAULT, RATE);
    double left = pass.strokes().getFirst().getLast().levelDb();
    assertThat(written.levelDbAt(3_600L * RATE)).isEqualTo(left);
    assertThat(written.levelDbAt(99L * BLOCK)).isZero();
  }

  @Test
  void aLaterPassReplacesJustWhatItTouched() {
    RideRule rule = new RideRule(0.5, true, 0.2);
    LevelLine first =
        Ride.written(OLD, play(OLD, rule.hand(RATE), 0, 1_000, 100, 900, 3), rule, RATE);
    Pass again = play(first, rule.hand(RATE), 0, 1_000, 400, 500, 4);
    LevelLine second = Ride.written(first, again, rule, RATE);
    for (long f = 0; f < 399L * BLOCK; f += 101) {
      assertThat(second.levelDbAt(f)).isCloseTo(first.levelDbAt(f), within(1e-9));
    }
    for (long f = 500L * BLOCK + RATE / 4; f < 1_000L * BLOCK; f += 101) {
      assertThat(second.levelDbAt(f)).isCloseTo(first.levelDbAt(f), within(1e-9));
    }
    assertThat(second.levelDbAt(450L * BLOCK)).isNotEqualTo(first.levelDbAt(450L * BLOCK));
  }

  @Test
  void aJumpOfThePlayheadBeginsAnotherStroke() {
    Hand hand = RideRule.DEFAULT.hand(RATE);
    Pass pass = new Pass();
    hand.hold(-12);
    hand.move(0, BLOCK, OLD);
    hand.move(BLOCK, BLOCK, OLD);
    hand.move(90_000, BLOCK, OLD);
    hand.takeInto(pass);
    assertThat(pass.strokes())
        .extracting(s -> s.getFirst().frame(), s -> s.getLast().frame())
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(0L, 2L * BLOCK),
            org.assertj.core.groups.Tuple.tuple(90_000L, 90_000L + BLOCK));
  }
}

package hushrise.core.project.level;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.LongPredicate;
import java.util.function.UnaryOperator;

/**
 * A track's volume over time: keyframes in order of time, never two at one instant, joined by
 * shaped segments, in dB. Before the first and after the last keyframe their levels hold; without
 * keyframes the line lies at 0 dB.
 */
public final class LevelLine {

  public static final LevelLine EMPTY = new LevelLine(List.of());

  private final List<Keyframe> keyframes;

  private LevelLine(List<Keyframe> ordered) {
    this.keyframes = List.copyOf(ordered);
  }

  /**
   * A line through the given keyframes, in any order.
   *
   * @throws IllegalArgumentException when two lie at one instant
   */
  @JsonCreator
  public static LevelLine of(List<Keyframe> keyframes) {
    List<Keyframe> ordered = new ArrayList<>(keyframes);
    ordered.sort(Comparator.comparingLong(Keyframe::frame));
    for (int i = 1; i < ordered.size(); i++) {
      if (ordered.get(i - 1).frame() == ordered.get(i).frame()) {
        throw new IllegalArgumentException("Two keyframes lie at frame " + ordered.get(i).frame());
      }
    }
    return new LevelLine(ordered);
  }

  /** The keyframes in order of time; possibly empty. */
  @JsonValue
  public List<Keyframe> keyframes() {
    return keyframes;
  }

  /** The level at a time, in dB; {@code OFF_DB} means off. */
  public double levelDbAt(long frame) {
    int next = indexAfter(frame);
    if (keyframes.isEmpty()) {
      return 0;
    }
    if (next == 0) {
      return keyframes.getFirst().levelDb();
    }
    Keyframe before = keyframes.get(next - 1);
    return next == keyframes.size()
        ? before.levelDb()
        : between(before, keyframes.get(next), frame);
  }

  /** The level within the segment of two neighbouring keyframes, in dB. */
  public static double between(Keyframe before, Keyframe after, long frame) {
    double fraction = (frame - before.frame()) / (double) (after.frame() - before.frame());
    return before.levelDb() + before.courseAt(fraction) * (after.levelDb() - before.levelDb());
  }

  /**
   * The index of the first keyframe later than a time; the count of keyframes when there is none.
   */
  public int indexAfter(long frame) {
    int low = 0;
    int high = keyframes.size();
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (keyframes.get(middle).frame() <= frame) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  public Optional<Keyframe> at(long frame) {
    int index = indexAfter(frame) - 1;
    return index >= 0 && keyframes.get(index).frame() == frame
        ? Optional.of(keyframes.get(index))
        : Optional.empty();
  }

  /** This line with a keyframe more; one that lies at the same instant gives way. */
  public LevelLine with(Keyframe keyframe) {
    List<Keyframe> changed = new ArrayList<>(keyframes);
    changed.removeIf(k -> k.frame() == keyframe.frame());
    changed.add(indexIn(changed, keyframe.frame()), keyframe);
    return new LevelLine(changed);
  }

  /**
   * This line with a keyframe where it lies at an instant, at which nothing changes: a smooth
   * segment goes on in two parts of its course. The same line where there is a keyframe already.
   */
  public LevelLine withPointAt(long frame) {
    if (at(frame).isPresent()) {
      return this;
    }
    int next = indexAfter(frame);
    boolean outside = next == 0 || next == keyframes.size();
    if (outside) {
      return with(new Keyframe(frame, levelDbAt(frame), SegmentShape.SMOOTH));
    }
    Keyframe before = keyframes.get(next - 1);
    Keyframe point = new Keyframe(frame, levelDbAt(frame), before.shape());
    List<Keyframe> changed = new ArrayList<>(keyframes);
    if (before.shape() == SegmentShape.SMOOTH) {
      Keyframe.Part part = before.wholePart();
      double fraction =
          (frame - before.frame()) / (double) (keyframes.get(next).frame() - before.frame());
      double middle = part.at(fraction);
      if (middle > part.from() && middle < part.to()) {
        changed.set(next - 1, before.withPart(part.from(), middle));
        point = point.withPart(middle, part.to());
      }
    }
    changed.add(next, point);
    return new LevelLine(changed);
  }

  /**
   * This line without the keyframes at some instants; the same line where there are none. Two parts
   * of one course become one again.
   */
  public LevelLine without(LongPredicate going) {
    List<Keyframe> left = new ArrayList<>(keyframes.size());
    for (Keyframe k : keyframes) {
      if (!going.test(k.frame())) {
        left.add(k);
      } else if (!left.isEmpty()) {
        left.add(left.removeLast().withoutNext(k));
      }
    }
    return left.size() == keyframes.size() ? this : new LevelLine(left);
  }

  /**
   * This line with the keyframe at {@code index} moved. It never passes or pushes its neighbours:
   * it stops one frame before them, and at the start of the timeline.
   */
  public LevelLine moved(int index, long toFrame, double toLevelDb) {
    long lowest = index == 0 ? 0 : keyframes.get(index - 1).frame() + 1;
    long highest =
        index == keyframes.size() - 1 ? Long.MAX_VALUE : keyframes.get(index + 1).frame() - 1;
    long frame = Math.clamp(toFrame, lowest, highest);
    List<Keyframe> changed = new ArrayList<>(keyframes);
    changed.set(index, keyframes.get(index).withFrame(frame).withLevelDb(toLevelDb));
    return new LevelLine(changed);
  }

  /** This line with some keyframes' levels or shapes changed; their times must stay. */
  public LevelLine mapped(UnaryOperator<Keyframe> change) {
    return LevelLine.of(keyframes.stream().map(change).toList());
  }

  /** The keyframes within a span, its end included. */
  public List<Keyframe> within(long fromFrame, long toFrame) {
    return keyframes.subList(
        indexAfter(fromFrame - 1), Math.max(indexAfter(fromFrame - 1), indexAfter(toFrame)));
  }

  private static int indexIn(List<Keyframe> ordered, long frame) {
    int index = 0;
    while (index < ordered.size() && ordered.get(index).frame() < frame) {
      index++;
    }
    return index;
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof LevelLine line && keyframes.equals(line.keyframes);
  }

  @Override
  public int hashCode() {
    return keyframes.hashCode();
  }

  @Override
  public String toString() {
    return "LevelLine" + keyframes;
  }
}

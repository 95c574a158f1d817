package hushrise.core.project.level;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import hushrise.core.Decibels;
import java.util.Optional;

/**
 * A point of a level line.
 *
 * @param frame where, in sample frames of the timeline
 * @param levelDb the level there, from {@link Decibels#OFF_DB} (off) to {@link #MAX_DB}
 * @param shape how the line goes on from here to the next keyframe
 * @param part which part of that shape's course the line runs through, where another keyframe was
 *     added on it; empty: all of it
 */
public record Keyframe(
    long frame,
    double levelDb,
    SegmentShape shape,
    @JsonInclude(JsonInclude.Include.NON_ABSENT) Optional<Part> part) {

  /** The highest level a line can ask for, in dB. */
  public static final double MAX_DB = 12.0;

  /**
   * A part of a shape's course.
   *
   * @param from where it begins, 0 to 1
   * @param to where it ends, more than {@code from} and at most 1
   */
  public record Part(double from, double to) {

    static final Part WHOLE = new Part(0, 1);

    public Part {
      if (!(from >= 0 && from < to && to <= 1)) {
        throw new IllegalArgumentException("No part of a segment: " + from + " to " + to);
      }
    }

    double at(double fraction) {
      return from + (to - from) * fraction;
    }
  }

  @JsonCreator
  public Keyframe {
    if (!(levelDb <= MAX_DB)) {
      throw new IllegalArgumentException("A level must be at most 12 dB, not " + levelDb);
    }
    levelDb = Math.max(levelDb, Decibels.OFF_DB);
    part = part == null ? Optional.empty() : part.filter(p -> !p.equals(Part.WHOLE));
  }

  /** A keyframe from which the line runs through its whole shape. */
  public Keyframe(long frame, double levelDb, SegmentShape shape) {
    this(frame, levelDb, shape, Optional.empty());
  }

  /**
   * How far the line has come from this keyframe's level to the next one's.
   *
   * @param fraction the part of the time between them that has passed, 0 to 1
   * @return 0 (still here) to 1 (there)
   */
  public double courseAt(double fraction) {
    if (part.isEmpty() || shape != SegmentShape.SMOOTH) {
      return shape.at(fraction);
    }
    double begin = shape.at(part.get().from());
    double whole = shape.at(part.get().to()) - begin;
    return whole > 0 ? (shape.at(part.get().at(fraction)) - begin) / whole : fraction;
  }

  /** The part of its shape's course that the line runs through. */
  Part wholePart() {
    return part.orElse(Part.WHOLE);
  }

  public Keyframe withFrame(long newFrame) {
    return new Keyframe(newFrame, levelDb, shape, part);
  }

  /** This keyframe at another level, held within what a line takes. */
  public Keyframe withLevelDb(double newLevelDb) {
    return new Keyframe(frame, Math.min(newLevelDb, MAX_DB), shape, part);
  }

  /** This keyframe with the line going on in another shape, the whole of it. */
  public Keyframe withShape(SegmentShape newShape) {
    return new Keyframe(frame, levelDb, newShape);
  }

  /** This keyframe once the next one is gone: two parts of one course become one again. */
  Keyframe withoutNext(Keyframe next) {
    boolean goesOn =
        shape == next.shape && part.isPresent() && wholePart().to() == next.wholePart().from();
    return goesOn ? withPart(wholePart().from(), next.wholePart().to()) : this;
  }

  Keyframe withPart(double from, double to) {
    return new Keyframe(frame, levelDb, shape, Optional.of(new Part(from, to)));
  }
}

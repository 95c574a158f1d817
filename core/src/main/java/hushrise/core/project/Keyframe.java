package hushrise.core.project;

import hushrise.core.Decibels;

/**
 * A point of a level line.
 *
 * @param frame where, in sample frames of the timeline
 * @param levelDb the level there, from {@link Decibels#OFF_DB} (off) to {@link #MAX_DB}
 * @param shape how the line goes on from here to the next keyframe
 */
public record Keyframe(long frame, double levelDb, SegmentShape shape) {

  /** The highest level a line can ask for, in dB. */
  public static final double MAX_DB = 12.0;

  public Keyframe {
    if (!(levelDb <= MAX_DB)) {
      throw new IllegalArgumentException("A level must be at most 12 dB, not " + levelDb);
    }
    levelDb = Math.max(levelDb, Decibels.OFF_DB);
  }

  public Keyframe withFrame(long newFrame) {
    return new Keyframe(newFrame, levelDb, shape);
  }

  /** This keyframe at another level, held within what a line takes. */
  public Keyframe withLevelDb(double newLevelDb) {
    return new Keyframe(frame, Math.min(newLevelDb, MAX_DB), shape);
  }

  public Keyframe withShape(SegmentShape newShape) {
    return new Keyframe(frame, levelDb, newShape);
  }
}

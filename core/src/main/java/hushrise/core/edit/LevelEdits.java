package hushrise.core.edit;

import hushrise.core.Decibels;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.SegmentShape;

/** Edits of levels: each is a function from project to project. */
public final class LevelEdits {

  private LevelEdits() {}

  /**
   * Adds a keyframe on a track's line, where the line lies, so that nothing sounds different yet.
   */
  public static Project addKeyframe(Project project, String trackId, long frame) {
    return project.withTrack(trackId, t -> t.withLine(t.line().withPointAt(frame)));
  }

  /** Moves a keyframe; it stops at its neighbours. */
  public static Project moveKeyframe(
      Project project, String trackId, int index, long toFrame, double toLevelDb) {
    return project.withTrack(trackId, t -> t.withLine(t.line().moved(index, toFrame, toLevelDb)));
  }

  public static Project removeKeyframe(Project project, String trackId, long frame) {
    return project.withTrack(trackId, t -> t.withLine(t.line().without(at -> at == frame)));
  }

  /**
   * Moves a stretch of line up or down as one: the keyframes at its ends, and any between them.
   *
   * @param fromFrame the keyframe at its start
   * @param toFrame the keyframe at its end; the same one before the first and after the last
   * @param byDb how far, in dB; held within what a line takes
   */
  public static Project moveStretch(
      Project project, String trackId, long fromFrame, long toFrame, double byDb) {
    return project.withTrack(
        trackId,
        t ->
            t.withLine(
                t.line()
                    .mapped(
                        k ->
                            k.frame() >= fromFrame && k.frame() <= toFrame
                                ? k.withLevelDb(k.levelDb() + byDb)
                                : k)));
  }

  /** Changes how the line goes on from a keyframe. */
  public static Project shapeSegment(
      Project project, String trackId, long frame, SegmentShape shape) {
    return project.withTrack(
        trackId,
        t -> t.withLine(t.line().mapped(k -> k.frame() == frame ? k.withShape(shape) : k)));
  }

  public static Project setTrackLevel(Project project, String trackId, double db) {
    double held = Math.clamp(db, Decibels.OFF_DB, Keyframe.MAX_DB);
    return project.withTrack(trackId, t -> t.withLevelDb(held));
  }

  /** Sets the level of the whole mix, held within -60 and +12 dB. */
  public static Project setMaster(Project project, double db) {
    return project.withMasterDb(Math.clamp(db, Decibels.OFF_DB, Keyframe.MAX_DB));
  }

  /** Changes the floor of a hush, in dB. */
  public static Project setHushDepth(Project project, String hushId, double depthDb) {
    double held = Math.clamp(depthDb, Decibels.OFF_DB, 0);
    return project.withEachTrack(
        t -> t.withHush(hushId, h -> HushEdits.byHand(h, h.withDepthDb(held))));
  }

  public static Project removeHush(Project project, String hushId) {
    return project.withEachTrack(t -> t.withoutHush(hushId));
  }
}

package hushrise.core.edit;

import hushrise.core.Decibels;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
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
    return project.withTrack(trackId, t -> t.withLine(t.line().without(frame)));
  }

  /**
   * Moves the stretch of line between two neighbouring keyframes up or down as one. Before the
   * first or after the last keyframe the one at hand moves; a line without keyframes moves nothing.
   *
   * @param nextIndex the index of the keyframe after the stretch
   * @param byDb how far, in dB; held within what a line takes
   */
  public static Project moveStretch(Project project, String trackId, int nextIndex, double byDb) {
    return project.withTrack(
        trackId,
        t -> {
          LevelLine line = t.line();
          for (int i = Math.max(0, nextIndex - 1);
              i <= nextIndex && i < line.keyframes().size();
              i++) {
            Keyframe k = line.keyframes().get(i);
            line = line.moved(i, k.frame(), k.levelDb() + byDb);
          }
          return t.withLine(line);
        });
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

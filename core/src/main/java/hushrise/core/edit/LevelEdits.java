package hushrise.core.edit;

import hushrise.core.Decibels;
import hushrise.core.project.Clip;
import hushrise.core.project.Fade;
import hushrise.core.project.Keyframe;
import hushrise.core.project.LevelLine;
import hushrise.core.project.Project;
import hushrise.core.project.SegmentShape;
import java.util.function.UnaryOperator;

/** Edits of levels: each is a function from project to project. */
public final class LevelEdits {

  private LevelEdits() {}

  /**
   * Adds a keyframe on a track's line, where the line lies, so that nothing sounds different yet.
   */
  public static Project addKeyframe(Project project, String trackId, long frame) {
    return project.withTrack(
        trackId,
        t -> {
          LevelLine line = t.line();
          int next = line.indexAfter(frame);
          SegmentShape shape =
              next == 0 ? SegmentShape.SMOOTH : line.keyframes().get(next - 1).shape();
          return line.at(frame).isPresent()
              ? t
              : t.withLine(line.with(new Keyframe(frame, line.levelDbAt(frame), shape)));
        });
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

  /** Sets a clip's fade-in; it ends at the latest where the fade-out begins. */
  public static Project setFadeIn(Project project, String clipId, long lengthFrames) {
    return withClip(
        project,
        clipId,
        c -> {
          long room = c.lengthFrames() - c.fadeOut().lengthFrames();
          return c.withFadeIn(c.fadeIn().withLength(Math.clamp(lengthFrames, 0, room)));
        });
  }

  /** Sets a clip's fade-out; it begins at the earliest where the fade-in ends. */
  public static Project setFadeOut(Project project, String clipId, long lengthFrames) {
    return withClip(
        project,
        clipId,
        c -> {
          long room = c.lengthFrames() - c.fadeIn().lengthFrames();
          Fade fade = c.fadeOut().withLength(Math.clamp(lengthFrames, 0, room));
          return c.withFadeOut(fade);
        });
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

  private static Project withClip(Project project, String clipId, UnaryOperator<Clip> change) {
    return project.withEachTrack(t -> t.withClip(clipId, change));
  }
}

package hushrise.app.timeline;

import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.Optional;

/**
 * Where things of a track lie in its lane.
 *
 * @param track the track
 * @param axis time to x
 * @param scale level to y
 * @param sampleRate frames per second
 */
record LaneGeometry(Track track, TimeAxis axis, LevelScale scale, int sampleRate) {

  /** How high the foot of a seam is. */
  static final double SEAM_FOOT = 13;

  /** A clip narrower than this, in pixels, shows no handles of its fades. */
  private static final double LEAST_WITH_HANDLES = 3 * GroundMarks.FLAG;

  /** The y of the fade handles. */
  static final double HANDLE_Y = 8;

  double x(Keyframe keyframe) {
    return axis.xOf(keyframe.frame());
  }

  double y(Keyframe keyframe) {
    return scale.yOf(keyframe.levelDb());
  }

  double fadeInX(Clip clip) {
    return axis.xOf(clip.startFrame() + clip.fadeIn().lengthFrames());
  }

  double fadeOutX(Clip clip) {
    return axis.xOf(clip.endFrame() - clip.fadeOut().lengthFrames());
  }

  /** How high the bars of passages are. */
  static final double PASSAGE = 8;

  /** Whether a clip has room for the handles of its fades. */
  boolean hasHandles(Clip clip) {
    return axis.xOf(clip.endFrame()) - axis.xOf(clip.startFrame()) >= LEAST_WITH_HANDLES;
  }

  /** The clip at a time; of several the one that lies on top. */
  Optional<Clip> clipAt(long frame) {
    return track.clips().reversed().stream().filter(c -> c.span().contains(frame)).findFirst();
  }

  double lineY(long frame) {
    return scale.yOf(track.line().levelDbAt(frame));
  }

  /** The y of a rise's top, which stands on the line. */
  double topY(Rise rise, Hush.Knots knots) {
    long middle = (knots.floorStart() + knots.floorEnd()) / 2;
    return scale.yOf(track.line().levelDbAt(middle) + rise.heightDb());
  }

  /** The y of a hush's floor, which hangs under the line. */
  double floorY(Hush hush, Hush.Knots knots) {
    long middle = (knots.floorStart() + knots.floorEnd()) / 2;
    return scale.yOf(track.line().levelDbAt(middle) + hush.depthDb());
  }
}

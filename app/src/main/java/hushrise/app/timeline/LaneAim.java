package hushrise.app.timeline;

import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * What a person who points at a place of a lane means: of several things of one sort that lie
 * within reach the closest, and of a hush or a rise rather the selected one, whose corners are
 * seen.
 */
final class LaneAim {

  /** How close the pointer must come, in pixels. */
  static final double REACH = 7;

  /** How close to an edge the pointer takes hold of it. */
  static final double EDGE = 5;

  /** How far from the middle of a fade's handle the pointer takes hold of it. */
  private static final double HANDLE_REACH = 10;

  private final LaneGeometry geometry;
  private final Track track;
  private final TimeAxis axis;
  private final Selection selection;

  LaneAim(LaneGeometry geometry, Selection selection) {
    this.geometry = geometry;
    this.selection = selection;
    track = geometry.track();
    axis = geometry.axis();
  }

  /** The closest of what is offered. */
  private static final class Closest {

    private double closest = Double.POSITIVE_INFINITY;
    private Optional<Target> found = Optional.empty();

    /**
     * @param away how far from the pointer it is, in pixels
     * @param reach how far at most it may be
     */
    void offer(double away, double reach, Supplier<Target> what) {
      if (away <= reach && away < closest) {
        closest = away;
        found = Optional.of(what.get());
      }
    }
  }

  /** What lies at a place. */
  Target at(double x, double y, Project project) {
    return passageAt(x, y, project).orElseGet(() -> at(x, y));
  }

  /** What lies at a place, passages apart. */
  Target at(double x, double y) {
    return levelAt(x, y)
        .or(() -> edgeAt(x, y))
        .or(() -> lineAt(x, y))
        .or(() -> geometry.clipAt(axis.frameAt(x)).map(clip -> new Target.OnClip(clip.id())))
        .orElse(Target.nothing());
  }

  /** The passage bar at a place; empty unless somebody has looked for speech in the clip there. */
  private Optional<Target> passageAt(double x, double y, Project project) {
    Closest closest = new Closest();
    if (track.isVoice() && y >= geometry.scale().height() - LaneGeometry.PASSAGE - 3) {
      for (Clip clip : track.clips().reversed()) {
        Optional<Media> media = project.media(clip.mediaId()).filter(m -> m.speech().isPresent());
        for (Passages.Passage p : media.map(m -> Passages.in(track, clip, m)).orElse(List.of())) {
          double left = axis.xOf(p.span().startFrame());
          double right = axis.xOf(p.span().endFrame());
          closest.offer(
              Math.max(0, Math.max(left - x, x - right)),
              EDGE,
              () ->
                  new Target.OnPassage(
                      clip.id(),
                      media.get().speech().get().indexOf(p.inMedia()),
                      hold(x, left, right)));
        }
      }
    }
    return closest.found;
  }

  private static Target.Hold hold(double x, double left, double right) {
    double inner = Math.min(EDGE, (right - left) / 4);
    return x <= left + inner
        ? Target.Hold.START
        : x >= right - inner ? Target.Hold.END : Target.Hold.BODY;
  }

  /** What changes a level at one place: a fade's handle, a keyframe, a hush, a rise. */
  private Optional<Target> levelAt(double x, double y) {
    return !track.kind().sounds()
        ? Optional.empty()
        : fadeHandleAt(x, y)
            .or(() -> keyframeAt(x, y))
            .or(() -> floorAt(x, y))
            .or(() -> shapeAt(x, y));
  }

  /** The handle of a fade, which leans into its clip. */
  private Optional<Target> fadeHandleAt(double x, double y) {
    Closest closest = new Closest();
    if (Math.abs(y - LaneGeometry.HANDLE_Y) <= REACH) {
      for (Clip clip : track.clips()) {
        if (geometry.hasHandles(clip)) {
          double intoIn = x - geometry.fadeInX(clip);
          double intoOut = geometry.fadeOutX(clip) - x;
          closest.offer(fromHandle(intoIn), HANDLE_REACH, () -> new Target.OnFadeIn(clip.id()));
          closest.offer(fromHandle(intoOut), HANDLE_REACH, () -> new Target.OnFadeOut(clip.id()));
        }
      }
    }
    return closest.found;
  }

  /** How far a place is from the middle of a handle that begins {@code into} pixels before it. */
  private static double fromHandle(double into) {
    return Math.abs(into - GroundMarks.FLAG / 2);
  }

  private Optional<Target> keyframeAt(double x, double y) {
    Closest closest = new Closest();
    List<Keyframe> keyframes = track.line().keyframes();
    int first = track.line().indexAfter(axis.frameAt(x - REACH) - 1);
    for (int i = first; i < keyframes.size(); i++) {
      Keyframe keyframe = keyframes.get(i);
      if (geometry.x(keyframe) > x + REACH) {
        break;
      }
      int index = i;
      double away = Math.hypot(x - geometry.x(keyframe), y - geometry.y(keyframe));
      closest.offer(away, REACH, () -> new Target.OnKeyframe(index));
    }
    return closest.found;
  }

  private Optional<Target> floorAt(double x, double y) {
    Closest closest = new Closest();
    for (Hush hush : track.hushes()) {
      Hush.Knots k = hush.knots(geometry.sampleRate());
      if (x >= axis.xOf(k.floorStart()) && x <= axis.xOf(k.floorEnd())) {
        double away = Math.abs(y - geometry.floorY(hush, k));
        closest.offer(rather(hush.id(), away), REACH, () -> new Target.OnFloor(hush.id()));
      }
    }
    return closest.found;
  }

  /** How far something of a hush or a rise is: what is selected comes before all others. */
  private double rather(String id, double away) {
    boolean isSelected =
        selection instanceof Selection.OfHush h && h.hushId().equals(id)
            || selection instanceof Selection.OfRise r && r.riseId().equals(id);
    return isSelected && away <= REACH ? -1 : away;
  }

  /** A corner or an edge of a hush or a rise. */
  private Optional<Target> shapeAt(double x, double y) {
    Closest closest = new Closest();
    for (Hush hush : track.hushes()) {
      Hush.Knots k = hush.knots(geometry.sampleRate());
      if (isNear(k, x)) {
        double top = geometry.lineY(k.start());
        double floor = geometry.floorY(hush, k);
        Part part = (away, what) -> offer(closest, hush.id(), away, what);
        part.offer(away(x, y, k.start(), top), Target.Part.HUSH_FALL);
        part.offer(away(x, y, k.end(), geometry.lineY(k.end())), Target.Part.HUSH_RECOVERY);
        if (y > top + REACH && y < floor - 2) {
          part.offer(fromSide(x, k.floorStart()), Target.Part.HUSH_START);
          part.offer(fromSide(x, k.floorEnd()), Target.Part.HUSH_END);
        }
      }
    }
    for (Rise rise : track.rises()) {
      Hush.Knots k = rise.knots(geometry.sampleRate());
      if (isNear(k, x)) {
        double top = geometry.topY(rise, k);
        double foot = geometry.lineY((k.floorStart() + k.floorEnd()) / 2);
        Part part = (away, what) -> offer(closest, rise.id(), away, what);
        if (x > axis.xOf(k.floorStart()) + REACH && x < axis.xOf(k.floorEnd()) - REACH) {
          part.offer(Math.abs(y - top), Target.Part.RISE_TOP);
        }
        part.offer(away(x, y, k.floorStart(), top), Target.Part.RISE_SWELL);
        part.offer(away(x, y, k.floorEnd(), top), Target.Part.RISE_RETURN);
        part.offer(away(x, y, k.start(), foot), Target.Part.RISE_START);
        part.offer(away(x, y, k.end(), foot), Target.Part.RISE_END);
      }
    }
    return closest.found;
  }

  /** Takes a part of one hush or rise and how far it is. */
  @FunctionalInterface
  private interface Part {
    void offer(double away, Target.Part what);
  }

  private void offer(Closest closest, String id, double away, Target.Part part) {
    closest.offer(rather(id, away), REACH, () -> new Target.OnShape(id, part));
  }

  private boolean isNear(Hush.Knots k, double x) {
    return x >= axis.xOf(k.start()) - REACH && x <= axis.xOf(k.end()) + REACH;
  }

  private double away(double x, double y, long frame, double atY) {
    return Math.hypot(x - axis.xOf(frame), y - atY);
  }

  private double fromSide(double x, long frame) {
    double away = Math.abs(x - axis.xOf(frame));
    return away <= EDGE ? away : Double.POSITIVE_INFINITY;
  }

  /** A seam's foot or a clip's edge; where two clips meet, the one that the pointer is in. */
  private Optional<Target> edgeAt(double x, double y) {
    Optional<Target> found = Optional.empty();
    for (Clip clip : track.clips()) {
      double left = axis.xOf(clip.startFrame());
      double right = axis.xOf(clip.endFrame());
      if (x < left - EDGE || x > right + EDGE) {
        continue;
      }
      Optional<Target> seam = seamAt(clip, x, y);
      if (seam.isPresent()) {
        return seam;
      }
      double inner = Math.min(EDGE, (right - left) / 4);
      if (x <= left + inner) {
        if (x >= left || found.isEmpty()) {
          found = Optional.of(new Target.OnClipStart(clip.id()));
        }
      } else if (x >= right - inner && (x <= right || found.isEmpty())) {
        found = Optional.of(new Target.OnClipEnd(clip.id()));
      }
    }
    return found;
  }

  private Optional<Target> seamAt(Clip clip, double x, double y) {
    Closest closest = new Closest();
    if (y >= geometry.scale().height() - LaneGeometry.SEAM_FOOT) {
      for (int i = 0; i < clip.seams().size(); i++) {
        int index = i;
        double at = axis.xOf(clip.startFrame() + clip.seams().get(i).atFrame());
        closest.offer(Math.abs(x - at), REACH, () -> new Target.OnSeam(clip.id(), index));
      }
    }
    return closest.found;
  }

  private Optional<Target> lineAt(double x, double y) {
    long frame = axis.frameAt(x);
    boolean onLine = track.kind().sounds() && Math.abs(y - geometry.lineY(frame)) <= REACH;
    return onLine
        ? Optional.of(new Target.OnStretch(track.line().indexAfter(frame)))
        : Optional.empty();
  }
}

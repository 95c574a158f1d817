package hushrise.app.timeline;

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

/**
 * Where things of a track lie in its lane, and what lies at a place.
 *
 * @param track the track
 * @param axis time to x
 * @param scale level to y
 * @param sampleRate frames per second
 */
record LaneGeometry(Track track, TimeAxis axis, LevelScale scale, int sampleRate) {

  /** How close the pointer must come, in pixels. */
  static final double REACH = 7;

  /** How close to a clip's edge the pointer takes hold of it. */
  static final double EDGE = 5;

  /** How high the foot of a seam is. */
  static final double SEAM_FOOT = 13;

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

  /** The passage bar at a place; empty unless somebody has looked for speech in the clip there. */
  Optional<Target.OnPassage> passageAt(double x, double y, Project project) {
    if (!track.isVoice() || y < scale.height() - PASSAGE - 3) {
      return Optional.empty();
    }
    for (Clip clip : track.clips().reversed()) {
      Optional<Media> media = project.media(clip.mediaId()).filter(m -> m.speech().isPresent());
      for (Passages.Passage p : media.map(m -> Passages.in(track, clip, m)).orElse(List.of())) {
        double left = axis.xOf(p.span().startFrame());
        double right = axis.xOf(p.span().endFrame());
        if (x >= left - EDGE && x <= right + EDGE) {
          int index = media.get().speech().get().indexOf(p.inMedia());
          double inner = Math.min(EDGE, (right - left) / 4);
          Target.Hold hold =
              x <= left + inner
                  ? Target.Hold.START
                  : x >= right - inner ? Target.Hold.END : Target.Hold.BODY;
          return Optional.of(new Target.OnPassage(clip.id(), index, hold));
        }
      }
    }
    return Optional.empty();
  }

  /** What a person who points at a place means. */
  Target targetAt(double x, double y) {
    if (track.kind().sounds()) {
      Target handle = fadeHandleAt(x, y);
      if (!(handle instanceof Target.Nothing)) {
        return handle;
      }
      Target point = pointAt(x, y);
      if (!(point instanceof Target.Nothing)) {
        return point;
      }
    }
    Target edge = edgeAt(x, y);
    if (!(edge instanceof Target.Nothing)) {
      return edge;
    }
    if (track.kind().sounds()) {
      Target line = lineAt(x, y);
      if (!(line instanceof Target.Nothing)) {
        return line;
      }
    }
    return clipAt(axis.frameAt(x))
        .<Target>map(clip -> new Target.OnClip(clip.id()))
        .orElse(Target.nothing());
  }

  /** The clip at a time; of several the one that lies on top. */
  Optional<Clip> clipAt(long frame) {
    return track.clips().reversed().stream().filter(c -> c.span().contains(frame)).findFirst();
  }

  /** A seam's foot or a clip's edge; where two clips meet, the one that the pointer is in. */
  private Target edgeAt(double x, double y) {
    Target found = Target.nothing();
    for (Clip clip : track.clips()) {
      double left = axis.xOf(clip.startFrame());
      double right = axis.xOf(clip.endFrame());
      if (x < left - EDGE || x > right + EDGE) {
        continue;
      }
      if (y >= scale.height() - SEAM_FOOT) {
        for (int i = 0; i < clip.seams().size(); i++) {
          double at = axis.xOf(clip.startFrame() + clip.seams().get(i).atFrame());
          if (Math.abs(x - at) <= REACH) {
            return new Target.OnSeam(clip.id(), i);
          }
        }
      }
      double inner = Math.min(EDGE, (right - left) / 4);
      if (x >= left - EDGE && x <= left + inner) {
        found =
            x >= left || found instanceof Target.Nothing
                ? new Target.OnClipStart(clip.id())
                : found;
      } else if (x >= right - inner && x <= right + EDGE) {
        found =
            x <= right || found instanceof Target.Nothing ? new Target.OnClipEnd(clip.id()) : found;
      }
    }
    return found;
  }

  private Target fadeHandleAt(double x, double y) {
    if (Math.abs(y - HANDLE_Y) > REACH) {
      return Target.nothing();
    }
    for (Clip clip : track.clips()) {
      if (Math.abs(x - fadeInX(clip)) <= REACH) {
        return new Target.OnFadeIn(clip.id());
      }
      if (Math.abs(x - fadeOutX(clip)) <= REACH) {
        return new Target.OnFadeOut(clip.id());
      }
    }
    return Target.nothing();
  }

  /** A keyframe or a hush's floor. */
  private Target pointAt(double x, double y) {
    List<Keyframe> keyframes = track.line().keyframes();
    int next = track.line().indexAfter(axis.frameAt(x));
    for (int i = Math.max(0, next - 1); i <= next && i < keyframes.size(); i++) {
      Keyframe k = keyframes.get(i);
      if (Math.hypot(x - x(k), y - y(k)) <= REACH) {
        return new Target.OnKeyframe(i);
      }
    }
    for (Hush hush : track.hushes()) {
      Hush.Knots k = hush.knots(sampleRate);
      boolean within = x >= axis.xOf(k.floorStart()) && x <= axis.xOf(k.floorEnd());
      if (within && Math.abs(y - floorY(hush, k)) <= REACH) {
        return new Target.OnFloor(hush.id());
      }
    }
    return shapeAt(x, y);
  }

  /** A corner or an edge of a hush or a rise. */
  private Target shapeAt(double x, double y) {
    for (Hush hush : track.hushes()) {
      Hush.Knots k = hush.knots(sampleRate);
      double top = lineY(k.start());
      double floor = floorY(hush, k);
      Target found =
          corner(x, y, k.start(), top, hush.id(), Target.Part.HUSH_FALL)
              .or(() -> corner(x, y, k.end(), lineY(k.end()), hush.id(), Target.Part.HUSH_RECOVERY))
              .or(() -> side(x, y, k.floorStart(), top, floor, hush.id(), Target.Part.HUSH_START))
              .or(() -> side(x, y, k.floorEnd(), top, floor, hush.id(), Target.Part.HUSH_END))
              .orElse(Target.nothing());
      if (!(found instanceof Target.Nothing)) {
        return found;
      }
    }
    for (Rise rise : track.rises()) {
      Hush.Knots k = rise.knots(sampleRate);
      double top = topY(rise, k);
      double foot = lineY((k.floorStart() + k.floorEnd()) / 2);
      boolean within = x > axis.xOf(k.floorStart()) + REACH && x < axis.xOf(k.floorEnd()) - REACH;
      if (within && Math.abs(y - top) <= REACH) {
        return new Target.OnShape(rise.id(), Target.Part.RISE_TOP);
      }
      Target found =
          corner(x, y, k.floorStart(), top, rise.id(), Target.Part.RISE_SWELL)
              .or(() -> corner(x, y, k.floorEnd(), top, rise.id(), Target.Part.RISE_RETURN))
              .or(() -> corner(x, y, k.start(), foot, rise.id(), Target.Part.RISE_START))
              .or(() -> corner(x, y, k.end(), foot, rise.id(), Target.Part.RISE_END))
              .orElse(Target.nothing());
      if (!(found instanceof Target.Nothing)) {
        return found;
      }
    }
    return Target.nothing();
  }

  private Optional<Target> corner(
      double x, double y, long frame, double atY, String id, Target.Part part) {
    return Math.hypot(x - axis.xOf(frame), y - atY) <= REACH
        ? Optional.of(new Target.OnShape(id, part))
        : Optional.empty();
  }

  private Optional<Target> side(
      double x, double y, long frame, double top, double floor, String id, Target.Part part) {
    boolean between = y > top + REACH && y < floor - 2;
    return between && Math.abs(x - axis.xOf(frame)) <= EDGE
        ? Optional.of(new Target.OnShape(id, part))
        : Optional.empty();
  }

  double lineY(long frame) {
    return scale.yOf(track.line().levelDbAt(frame));
  }

  /** The y of a rise's top, which stands on the line. */
  double topY(Rise rise, Hush.Knots knots) {
    long middle = (knots.floorStart() + knots.floorEnd()) / 2;
    return scale.yOf(track.line().levelDbAt(middle) + rise.heightDb());
  }

  private Target lineAt(double x, double y) {
    int next = track.line().indexAfter(axis.frameAt(x));
    boolean onLine = Math.abs(y - scale.yOf(track.line().levelDbAt(axis.frameAt(x)))) <= REACH;
    return onLine ? new Target.OnStretch(next) : Target.nothing();
  }

  /** The y of a hush's floor, which hangs under the line. */
  double floorY(Hush hush, Hush.Knots knots) {
    long middle = (knots.floorStart() + knots.floorEnd()) / 2;
    return scale.yOf(track.line().levelDbAt(middle) + hush.depthDb());
  }
}

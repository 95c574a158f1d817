package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Clip;
import hushrise.core.project.Hush;
import hushrise.core.project.Keyframe;
import hushrise.core.project.LevelText;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.time.Timecode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A drag of a keyframe, a stretch of line, a hush's floor or a fade. It keeps to the axis on which
 * it started.
 */
final class LevelDrag implements Drag {

  /** How far the pointer moves before the axis is decided, in pixels. */
  private static final double SLACK = 3;

  private enum Direction {
    UNDECIDED,
    ACROSS,
    UP_AND_DOWN
  }

  private final Target target;
  private final Project before;
  private final LaneGeometry geometry;
  private final double pressX;
  private final double pressY;
  private Direction direction = Direction.UNDECIDED;
  private Project result;
  private final Set<Long> group;
  private boolean freed;
  private String sign = "";
  private Selection selection;

  private LevelDrag(
      Target target,
      Project before,
      LaneGeometry geometry,
      Selection selected,
      double x,
      double y) {
    this.group = groupOf(target, geometry, selected);
    this.target = target;
    this.before = before;
    this.geometry = geometry;
    this.pressX = x;
    this.pressY = y;
    this.result = before;
    this.selection = selectionOf(target);
  }

  /** A drag of what lies under the pointer; empty where nothing can be dragged. */
  static Optional<Drag> of(
      Target target,
      Project before,
      LaneGeometry geometry,
      Selection selected,
      double x,
      double y) {
    boolean draggable =
        switch (target) {
          case Target.OnKeyframe k -> true;
          case Target.OnStretch s -> true;
          case Target.OnFloor f -> true;
          case Target.OnFadeIn f -> true;
          case Target.OnFadeOut f -> true;
          default -> false;
        };
    return draggable
        ? Optional.of(new LevelDrag(target, before, geometry, selected, x, y))
        : Optional.empty();
  }

  /**
   * The keyframes that move together: those selected, when the one under the pointer is among them.
   */
  private static Set<Long> groupOf(Target target, LaneGeometry geometry, Selection selected) {
    if (!(target instanceof Target.OnKeyframe k)) {
      return Set.of();
    }
    long frame = geometry.track().line().keyframes().get(k.index()).frame();
    boolean among =
        selected instanceof Selection.OfKeyframe s
            && s.trackId().equals(geometry.track().id())
            && s.all().contains(frame);
    return among ? Set.copyOf(((Selection.OfKeyframe) selected).all()) : Set.of(frame);
  }

  private Selection keyframes(Set<Long> frames, long last) {
    List<Long> all = new ArrayList<>(frames);
    all.remove(last);
    all.add(last);
    return new Selection.OfKeyframe(geometry.track().id(), all);
  }

  private Selection selectionOf(Target of) {
    Track track = geometry.track();
    String id = track.id();
    return switch (of) {
      case Target.OnKeyframe k -> keyframes(group, track.line().keyframes().get(k.index()).frame());
      case Target.OnFloor f -> new Selection.OfHush(id, f.hushId());
      case Target.OnFadeIn f -> new Selection.OfClip(id, f.clipId());
      case Target.OnFadeOut f -> new Selection.OfClip(id, f.clipId());
      default -> new Selection.OfTrack(id);
    };
  }

  @Override
  public Project at(Pull pull) {
    double x = pull.x();
    double y = pull.y();
    freed = pull.freed();
    decideDirection(x, y);
    if (direction != Direction.UNDECIDED) {
      result = moved(x, y);
    }
    return result;
  }

  private void decideDirection(double x, double y) {
    double across = Math.abs(x - pressX);
    double down = Math.abs(y - pressY);
    if (direction == Direction.UNDECIDED && Math.max(across, down) > SLACK) {
      direction = across > down ? Direction.ACROSS : Direction.UP_AND_DOWN;
    }
  }

  private Project moved(double x, double y) {
    return switch (target) {
      case Target.OnKeyframe k -> moveKeyframe(k.index(), x, y);
      case Target.OnStretch s -> moveStretch(s.nextIndex(), y);
      case Target.OnFloor f -> moveFloor(f.hushId(), y);
      case Target.OnFadeIn f -> fadeIn(f.clipId(), x);
      case Target.OnFadeOut f -> fadeOut(f.clipId(), x);
      default -> before;
    };
  }

  private Project moveKeyframe(int index, double x, double y) {
    Keyframe k = geometry.track().line().keyframes().get(index);
    boolean across = freed || direction == Direction.ACROSS;
    boolean upAndDown = freed || direction == Direction.UP_AND_DOWN;
    long by = across ? framesBetween(pressX, x) : 0;
    double byDb =
        upAndDown ? rounded(geometry.scale().dbAt(geometry.y(k) + y - pressY)) - k.levelDb() : 0;
    KeyframeEdits.Moved moved = KeyframeEdits.move(before, geometry.track().id(), group, by, byDb);
    Keyframe now =
        moved.project().track(geometry.track().id()).orElseThrow().line().keyframes().get(index);
    selection = keyframes(moved.frames(), now.frame());
    sign =
        LevelText.format(now.levelDb())
            + "   "
            + Timecode.format(now.frame(), before.pictureRate(), before.sampleRate());
    return moved.project();
  }

  private Project moveStretch(int nextIndex, double y) {
    double byDb = rounded(geometry.scale().dbAt(y) - geometry.scale().dbAt(pressY));
    if (geometry.track().line().keyframes().isEmpty()) {
      double db = geometry.track().levelDb() + byDb;
      Project moved = LevelEdits.setTrackLevel(before, geometry.track().id(), db);
      sign =
          text(
              "sign.trackLevel",
              LevelText.format(moved.track(geometry.track().id()).orElseThrow().levelDb()));
      return moved;
    }
    sign = (byDb > 0 ? "+" : "") + "%.1f dB".formatted(byDb).replace('-', '\u2212');
    return LevelEdits.moveStretch(before, geometry.track().id(), nextIndex, byDb);
  }

  private Project moveFloor(String hushId, double y) {
    Hush hush =
        geometry.track().hushes().stream()
            .filter(h -> h.id().equals(hushId))
            .findFirst()
            .orElseThrow();
    double startY = geometry.floorY(hush, hush.knots(before.sampleRate()));
    double lineDb = geometry.scale().dbAt(startY) - hush.depthDb();
    double depth = Math.min(0, rounded(geometry.scale().dbAt(startY + y - pressY) - lineDb));
    sign = LevelText.format(depth);
    return LevelEdits.setHushDepth(before, hushId, depth);
  }

  private Project fadeIn(String clipId, double x) {
    Clip clip = clip(clipId);
    Project changed =
        LevelEdits.setFadeIn(
            before, clipId, clip.fadeIn().lengthFrames() + framesBetween(pressX, x));
    sign = Timecode.seconds(clipIn(changed, clipId).fadeIn().lengthFrames(), before.sampleRate());
    return changed;
  }

  private Project fadeOut(String clipId, double x) {
    Clip clip = clip(clipId);
    Project changed =
        LevelEdits.setFadeOut(
            before, clipId, clip.fadeOut().lengthFrames() - framesBetween(pressX, x));
    sign = Timecode.seconds(clipIn(changed, clipId).fadeOut().lengthFrames(), before.sampleRate());
    return changed;
  }

  private Clip clip(String clipId) {
    return clipIn(before, clipId);
  }

  private Clip clipIn(Project project, String clipId) {
    return project.track(geometry.track().id()).orElseThrow().clips().stream()
        .filter(c -> c.id().equals(clipId))
        .findFirst()
        .orElseThrow();
  }

  private long framesBetween(double fromX, double toX) {
    return Math.round((toX - fromX) * geometry.axis().framesPerPixel());
  }

  private static double rounded(double db) {
    return Math.round(db * 10) / 10.0;
  }

  @Override
  public String sign() {
    return sign;
  }

  @Override
  public Selection selection() {
    return selection;
  }

  @Override
  public boolean hasMoved() {
    return direction != Direction.UNDECIDED;
  }

  @Override
  public String name() {
    return switch (target) {
      case Target.OnKeyframe k -> text("edit.moveKeyframe");
      case Target.OnStretch s ->
          geometry.track().line().keyframes().isEmpty()
              ? text("edit.trackLevel")
              : text("edit.moveStretch");
      case Target.OnFloor f -> text("edit.hushDepth");
      case Target.OnFadeIn f -> text("edit.fadeIn");
      case Target.OnFadeOut f -> text("edit.fadeOut");
      default -> "";
    };
  }
}

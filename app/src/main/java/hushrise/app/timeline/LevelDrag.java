package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Timecode;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * A drag of a keyframe, a stretch of line, a hush's floor or a fade. It keeps to the axis on which
 * it started.
 */
final class LevelDrag extends Drag {

  private enum Direction {
    UNDECIDED,
    ACROSS,
    UP_AND_DOWN
  }

  private final Target target;
  private final Project before;
  private final LaneGeometry geometry;
  private final Set<Long> group;
  private Direction direction = Direction.UNDECIDED;
  private Selection selection;

  private LevelDrag(
      Target target,
      Project before,
      LaneGeometry geometry,
      Selection selected,
      double x,
      double y) {
    super(x, y);
    this.group = groupOf(target, geometry, selected);
    this.target = target;
    this.before = before;
    this.geometry = geometry;
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
   * The keyframes that move together, by where they were: those selected, when the one under the
   * pointer is among them; those at the ends of a stretch. Others may come and go meanwhile.
   */
  private static Set<Long> groupOf(Target target, LaneGeometry geometry, Selection selected) {
    List<Keyframe> line = geometry.track().line().keyframes();
    if (target instanceof Target.OnStretch s) {
      return line
          .subList(Math.max(0, s.nextIndex() - 1), Math.min(line.size(), s.nextIndex() + 1))
          .stream()
          .map(Keyframe::frame)
          .collect(Collectors.toSet());
    }
    if (!(target instanceof Target.OnKeyframe k)) {
      return Set.of();
    }
    long frame = line.get(k.index()).frame();
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
  boolean isFarEnough(double across, double down) {
    boolean far = super.isFarEnough(across, down);
    if (direction == Direction.UNDECIDED && far) {
      direction = Math.abs(across) > Math.abs(down) ? Direction.ACROSS : Direction.UP_AND_DOWN;
    }
    return far;
  }

  @Override
  Project apply(Project base) {
    double y = pull().y();
    if (!group.stream().allMatch(f -> lineOf(base).at(f).isPresent())) {
      throw new NoSuchElementException("A keyframe that is held has gone");
    }
    return switch (target) {
      case Target.OnKeyframe k -> moveKeyframe(base, k.index(), y);
      case Target.OnStretch s -> moveStretch(base, y);
      case Target.OnFloor f -> moveFloor(base, f.hushId(), y);
      case Target.OnFadeIn f -> fadeIn(base, f.clipId());
      case Target.OnFadeOut f -> fadeOut(base, f.clipId());
      default -> base;
    };
  }

  private Project moveKeyframe(Project base, int index, double y) {
    Keyframe k = geometry.track().line().keyframes().get(index);
    boolean across = pull().freed() || direction == Direction.ACROSS;
    boolean upAndDown = pull().freed() || direction == Direction.UP_AND_DOWN;
    long by = across ? byFrames(geometry.axis()) : 0;
    double byDb =
        upAndDown ? tenths(geometry.scale().dbAt(geometry.y(k) + y - pressY())) - k.levelDb() : 0;
    KeyframeEdits.Moved moved = KeyframeEdits.move(base, geometry.track().id(), group, by, byDb);
    long to = k.frame() + moved.byFrames();
    Keyframe now = lineOf(moved.project()).at(to).orElseThrow();
    selection = keyframes(moved.frames(), now.frame());
    setSign(
        LevelText.format(now.levelDb())
            + "   "
            + Timecode.format(now.frame(), before.pictureRate(), before.sampleRate()));
    return moved.project();
  }

  private LevelLine lineOf(Project project) {
    return project.track(geometry.track().id()).orElseThrow().line();
  }

  private Project moveStretch(Project base, double y) {
    double byDb = tenths(geometry.scale().dbAt(y) - geometry.scale().dbAt(pressY()));
    if (group.isEmpty()) {
      double db = geometry.track().levelDb() + byDb;
      Project moved = LevelEdits.setTrackLevel(base, geometry.track().id(), db);
      setSign(
          text(
              "sign.trackLevel",
              LevelText.format(moved.track(geometry.track().id()).orElseThrow().levelDb())));
      return moved;
    }
    setSignOfChange(byDb);
    long from = Collections.min(group);
    long to = Collections.max(group);
    return LevelEdits.moveStretch(base, geometry.track().id(), from, to, byDb);
  }

  private Project moveFloor(Project base, String hushId, double y) {
    Hush hush =
        geometry.track().hushes().stream()
            .filter(h -> h.id().equals(hushId))
            .findFirst()
            .orElseThrow();
    double startY = geometry.floorY(hush, hush.knots(before.sampleRate()));
    double lineDb = geometry.scale().dbAt(startY) - hush.depthDb();
    double depth = Math.min(0, tenths(geometry.scale().dbAt(startY + y - pressY()) - lineDb));
    setSign(LevelText.format(depth));
    return LevelEdits.setHushDepth(base, hushId, depth);
  }

  private Project fadeIn(Project base, String clipId) {
    Clip clip = clip(clipId);
    Project changed =
        FadeEdits.fitIn(base, clipId, clip.fadeIn().lengthFrames() + byFrames(geometry.axis()));
    setSign(Timecode.seconds(clipIn(changed, clipId).fadeIn().lengthFrames(), before.sampleRate()));
    return changed;
  }

  private Project fadeOut(Project base, String clipId) {
    Clip clip = clip(clipId);
    Project changed =
        FadeEdits.fitOut(base, clipId, clip.fadeOut().lengthFrames() - byFrames(geometry.axis()));
    setSign(
        Timecode.seconds(clipIn(changed, clipId).fadeOut().lengthFrames(), before.sampleRate()));
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

  @Override
  Selection selection() {
    return selection;
  }

  @Override
  String name() {
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

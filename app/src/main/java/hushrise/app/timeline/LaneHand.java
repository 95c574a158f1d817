package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.core.Problem;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.OptionalLong;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** The hand in a lane, from press to release: it drags, selects, or adds a keyframe. */
final class LaneHand {

  private final Viewport view;
  private final Lane lane;
  private final BoxSelect box;
  private Optional<Drag> drag = Optional.empty();
  private OptionalLong spanFrom = OptionalLong.empty();

  LaneHand(Viewport view, Lane lane, BoxSelect box) {
    this.view = view;
    this.lane = lane;
    this.box = box;
  }

  /** Whether it holds something that moves along. */
  boolean drags() {
    return drag.isPresent();
  }

  /** What is to be shown beside the pointer; empty when nothing is dragged. */
  String sign() {
    return drag.map(Drag::sign).orElse("");
  }

  /** Takes hold of what lies under the pointer, or selects it. */
  void press(MouseEvent e) {
    LaneGeometry geometry = lane.geometry();
    Target target = lane.targetAt(e.getX(), e.getY());
    if (e.getButton() != MouseButton.PRIMARY) {
      hold(target, e).select();
      return;
    }
    boolean onKeyframe = target instanceof Target.OnKeyframe;
    boolean sounds = geometry.track().kind().sounds();
    if (sounds && !onKeyframe && (e.isShortcutDown() || e.getClickCount() == 2)) {
      addKeyframe(geometry.axis().frameAt(e.getX()));
      return;
    }
    if (e.isShiftDown()) {
      shiftPress(target, e);
      return;
    }
    if (view.session().draft().isPresent() && isOfDraft(target)) {
      view.messages().say(text("draft.untouched"));
      return;
    }
    Hold hold = hold(target, e);
    drag = hold.level();
    if (drag.isPresent()) {
      view.session().select(drag.get().selection());
      return;
    }
    hold.select();
    if (target instanceof Target.Nothing) {
      box.begin(e.getSceneX(), e.getSceneY());
    } else {
      drag = hold.clip();
    }
  }

  private Hold hold(Target target, MouseEvent e) {
    return new Hold(target, view, lane.geometry(), e);
  }

  /** Whether something may be another in a draft that is shown than in the present project. */
  private static boolean isOfDraft(Target target) {
    return target instanceof Target.OnFloor || target instanceof Target.OnShape;
  }

  /** With Shift: one more thing selected, or the beginning of a stretch of time. */
  private void shiftPress(Target target, MouseEvent e) {
    if (target instanceof Target.OnKeyframe k) {
      long frame = lane.geometry().track().line().keyframes().get(k.index()).frame();
      view.session().select(view.session().selection().withKeyframe(lane.trackId(), frame));
      return;
    }
    spanFrom = OptionalLong.of(Math.max(0, view.axis().frameAt(e.getX())));
  }

  private void pullSpan(MouseEvent e) {
    long from = spanFrom.getAsLong();
    long to = Math.max(0, view.axis().frameAt(e.getX()));
    if (from != to) {
      view.session()
          .select(
              new Selection.OfSpan(
                  lane.trackId(), new Span(Math.min(from, to), Math.max(from, to))));
    }
  }

  private void addKeyframe(long frame) {
    long held = Math.max(0, frame);
    String trackId = lane.trackId();
    view.session().commit(text("edit.addKeyframe"), p -> LevelEdits.addKeyframe(p, trackId, held));
    view.session().select(new Selection.OfKeyframe(trackId, held));
  }

  /** Moves what is held. */
  void pull(MouseEvent e) {
    if (spanFrom.isPresent()) {
      pullSpan(e);
      return;
    }
    box.move(e.getSceneX(), e.getSceneY());
    view.setDragging(drag.isPresent());
    drag.ifPresent(d -> pull(d, e));
  }

  private void pull(Drag d, MouseEvent e) {
    boolean begun = d.hasMoved();
    if (begun && !view.session().isDragging()) {
      giveBack();
      return;
    }
    Drag.Pull to =
        new Drag.Pull(e.getX(), e.getY(), e.isShortcutDown(), box.trackAt(e.getSceneY()));
    if (!d.pull(to)) {
      return;
    }
    if (!begun) {
      view.hint("");
    }
    try {
      view.session().drag(d.name(), d::apply);
    } catch (Problem problem) {
      giveBack();
      view.messages().complain(problem.getMessage());
      return;
    } catch (NoSuchElementException gone) {
      giveBack(); // what was pressed was deleted before it moved
      return;
    }
    view.snapLineProperty().set(d.snapPlace());
    view.session().select(d.selection());
    lane.repaint();
  }

  /** Lets go of it. */
  void release(MouseEvent e) {
    view.snapLineProperty().set(OptionalLong.empty());
    box.end();
    Optional<Drag> ended = drag;
    drag = Optional.empty();
    boolean ofSpan = spanFrom.isPresent();
    spanFrom = OptionalLong.empty();
    Optional<Track> left = view.session().shown().track(lane.trackId());
    if (left.isEmpty() || ofSpan) {
      view.setDragging(false);
      if (left.isPresent()) { // it may have been undone while something was held on it
        endSpan(e);
      }
      return;
    }
    if (ended.filter(Drag::hasMoved).isPresent() && view.session().isDragging()) {
      view.session().endDrag();
      view.session().select(ended.get().selection());
    }
    view.setDragging(false);
    boolean clicked = ended.isPresent() && !ended.get().hasMoved();
    if (clicked && left.get().kind() == TrackKind.PICTURE) {
      view.session().seek(view.axis().frameAt(e.getX()));
    }
    lane.repaint();
  }

  /** A press with Shift that did not move selects one clip more. */
  private void endSpan(MouseEvent e) {
    Target target = new LaneAim(lane.geometry(), view.session().selection()).at(e.getX(), e.getY());
    if (e.isStillSincePress() && target instanceof Target.OnClip c) {
      view.session().select(view.session().selection().with(lane.trackId(), c.clipId()));
    }
  }

  /** Gives a drag back, and a stretch of time that is being drawn; false when neither is. */
  boolean giveBack() {
    view.snapLineProperty().set(OptionalLong.empty());
    if (spanFrom.isPresent()) {
      spanFrom = OptionalLong.empty();
      view.session().select(Selection.nothing());
      return true;
    }
    if (drag.isEmpty()) {
      return box.cancel();
    }
    drag = Optional.empty();
    view.setDragging(false);
    view.session().cancelDrag();
    lane.repaint();
    return true;
  }
}

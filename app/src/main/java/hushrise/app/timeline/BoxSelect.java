package hushrise.app.timeline;

import hushrise.app.session.Selection;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.shape.Rectangle;

/**
 * Selects clips by drawing a box over the lanes, and tells which lane lies at a height. All places
 * are the scene's.
 */
final class BoxSelect {

  private final Viewport view;
  private final Supplier<List<Lane>> lanes;
  private final Rectangle box = new Rectangle();
  private Optional<Point2D> corner = Optional.empty();

  BoxSelect(Viewport view, Supplier<List<Lane>> lanes) {
    this.view = view;
    this.lanes = lanes;
    box.getStyleClass().add("select-box");
    box.setVisible(false);
    box.setManaged(false);
  }

  /** The box, to be laid over the lanes. */
  Rectangle shape() {
    return box;
  }

  void begin(double x, double y) {
    corner = Optional.of(new Point2D(x, y));
  }

  void move(double x, double y) {
    corner.ifPresent(
        c -> {
          Point2D from = box.getParent().sceneToLocal(c);
          Point2D to = box.getParent().sceneToLocal(x, y);
          box.setX(Math.min(from.getX(), to.getX()));
          box.setY(Math.min(from.getY(), to.getY()));
          box.setWidth(Math.abs(to.getX() - from.getX()));
          box.setHeight(Math.abs(to.getY() - from.getY()));
          box.setVisible(true);
          select();
        });
  }

  private void select() {
    Bounds inScene = box.localToScene(box.getBoundsInLocal());
    List<String> ids = new ArrayList<>();
    String last = "";
    for (Lane lane : lanes.get()) {
      Bounds bounds = lane.localToScene(lane.getBoundsInLocal());
      Optional<Track> track = view.session().shown().track(lane.trackId());
      if (track.isPresent() && bounds.intersects(inScene)) {
        long from = view.axis().frameAt(inScene.getMinX() - bounds.getMinX());
        long to = view.axis().frameAt(inScene.getMaxX() - bounds.getMinX());
        for (Clip clip : track.get().clips()) {
          if (clip.startFrame() < to && from < clip.endFrame()) {
            ids.add(clip.id());
            last = lane.trackId();
          }
        }
      }
    }
    view.session().select(ids.isEmpty() ? Selection.nothing() : new Selection.OfClip(last, ids));
  }

  void end() {
    corner = Optional.empty();
    box.setVisible(false);
  }

  /** Ends it with nothing selected; false when none is under way. */
  boolean cancel() {
    boolean was = corner.isPresent() && box.isVisible();
    end();
    if (was) {
      view.session().select(Selection.nothing());
    }
    return was;
  }

  /** The track whose lane lies at a height. */
  Optional<String> trackAt(double y) {
    return lanes.get().stream()
        .filter(
            lane -> {
              Bounds bounds = lane.localToScene(lane.getBoundsInLocal());
              return y >= bounds.getMinY() && y <= bounds.getMaxY();
            })
        .map(Lane::trackId)
        .findFirst();
  }
}

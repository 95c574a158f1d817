package hushrise.app.timeline;

import hushrise.core.ride.Pass;
import java.util.List;
import java.util.Optional;
import javafx.scene.shape.LineTo;
import javafx.scene.shape.MoveTo;
import javafx.scene.shape.Path;
import javafx.scene.shape.PathElement;

/**
 * Where the hand has been on a lane while it is ridden, before any of it is written. Only what has
 * come since the last look is added, and at most one point for each pixel.
 */
final class RideTrail extends Path {

  private TimeAxis drawnAxis;
  private double drawnHeight;
  private double drawnWidth;
  private int stroke;
  private int point;
  private boolean goesOn;

  /** Where the point before the last one lies; the last one moves on until it is a pixel away. */
  private double settledX;

  RideTrail() {
    getStyleClass().add("ride-trail");
    setManaged(false);
    setMouseTransparent(true);
  }

  /** Shows what a pass has done so far; nothing without one. */
  void show(Optional<Pass> pass, TimeAxis axis, double width, double height) {
    if (pass.isEmpty()) {
      if (!getElements().isEmpty()) {
        clear();
      }
      return;
    }
    if (!axis.equals(drawnAxis) || height != drawnHeight) {
      clear();
      drawnAxis = axis;
      drawnHeight = height;
    }
    drawnWidth = width;
    LevelScale scale = new LevelScale(height);
    while (stroke < pass.get().strokeCount()) {
      List<Pass.Point> points = pass.get().stroke(stroke);
      for (; point < points.size(); point++) {
        add(points.get(point), scale);
      }
      if (stroke == pass.get().strokeCount() - 1) {
        follow(points.getLast());
        return;
      }
      stroke++;
      point = 0;
      goesOn = false;
    }
  }

  private void clear() {
    getElements().clear();
    drawnAxis = null;
    stroke = 0;
    point = 0;
    goesOn = false;
  }

  private void add(Pass.Point at, LevelScale scale) {
    double x = drawnAxis.xOf(at.frame());
    double y = scale.yOf(at.levelDb());
    if (x < 0 || x > drawnWidth) {
      goesOn = false;
    } else if (!goesOn) {
      getElements().add(new MoveTo(x, y));
      settledX = x;
      goesOn = true;
    } else if (last() instanceof LineTo line && x - settledX < 1) {
      line.setX(x);
      line.setY(y);
    } else {
      settledX = last() instanceof LineTo line ? line.getX() : settledX;
      getElements().add(new LineTo(x, y));
    }
  }

  /** A level that stands lets its last point move on. */
  private void follow(Pass.Point at) {
    double x = drawnAxis.xOf(at.frame());
    if (goesOn && last() instanceof LineTo line && x > line.getX() && x <= drawnWidth) {
      line.setX(x);
    }
  }

  private PathElement last() {
    return getElements().getLast();
  }
}

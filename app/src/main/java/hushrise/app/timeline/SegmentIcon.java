package hushrise.app.timeline;

import hushrise.core.project.level.SegmentShape;
import javafx.scene.shape.Polyline;

/** A segment's shape, drawn small. */
final class SegmentIcon {

  private static final double WIDTH = 26;
  private static final double HEIGHT = 12;
  private static final int STEPS = 26;

  private SegmentIcon() {}

  static Polyline of(SegmentShape shape) {
    Polyline curve = new Polyline();
    for (int i = 0; i <= STEPS; i++) {
      double fraction = i / (double) STEPS;
      curve.getPoints().addAll(WIDTH * fraction, HEIGHT * shape.at(fraction));
    }
    curve.getStyleClass().add("segment-icon");
    return curve;
  }
}

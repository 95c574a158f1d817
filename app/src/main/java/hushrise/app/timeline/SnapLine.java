package hushrise.app.timeline;

import java.util.OptionalLong;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Region;

/**
 * The place that something dragged is held at, over all lanes. Its dashes are drawn once: as a
 * dashed line they would be traced anew in each frame.
 */
final class SnapLine extends Canvas {

  private static final double DASH = 5;
  private static final double PERIOD = 9;

  private final Viewport view;
  private final Region over;

  /**
   * @param over what the line is as high as
   */
  SnapLine(Viewport view, Region over) {
    super(2, 0);
    this.view = view;
    this.over = over;
    setVisible(false);
    view.snapLineProperty().addListener((p, was, now) -> show(now));
  }

  private void show(OptionalLong place) {
    if (place.isPresent()) {
      if (!isVisible()) {
        draw();
      }
      setTranslateX(view.headWidth() + Math.round(view.axis().xOf(place.getAsLong())) - 1);
    }
    setVisible(place.isPresent());
  }

  private void draw() {
    setHeight(over.getHeight());
    GraphicsContext g = getGraphicsContext2D();
    g.clearRect(0, 0, getWidth(), getHeight());
    g.setFill(view.palette().rise());
    for (double y = 0; y < getHeight(); y += PERIOD) {
      g.fillRect(0, y, getWidth(), DASH);
    }
  }
}

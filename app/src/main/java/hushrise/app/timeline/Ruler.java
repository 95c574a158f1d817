package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.core.project.Project;
import hushrise.core.time.Timecode;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Region;
import javafx.scene.text.Font;

/** The ruler in timecode. Pressing and dragging on it moves the playhead. */
final class Ruler extends Region {

  private static final double[] STEPS_SECONDS = {
    0.04, 0.2, 0.4, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1200, 1800, 3600
  };
  private static final double LABEL_WIDTH = 88;
  private static final Font FONT = Font.font("Atkinson Hyperlegible Mono ExtraLight Medium", 11);

  private final Viewport view;
  private final Canvas canvas = new Canvas();

  Ruler(Viewport view) {
    this.view = view;
    setId("ruler");
    getStyleClass().add("ruler");
    setAccessibleText(text("ruler.accessible"));
    getChildren().add(canvas);
    setOnMousePressed(e -> view.session().seek(view.axis().frameAt(e.getX())));
    setOnMouseDragged(e -> view.session().seek(view.axis().frameAt(e.getX())));
    setOnMouseMoved(e -> view.hint(text("hint.ruler")));
  }

  @Override
  protected void layoutChildren() {
    canvas.setWidth(getWidth());
    canvas.setHeight(getHeight());
    redraw();
  }

  void redraw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double width = canvas.getWidth();
    double height = canvas.getHeight();
    g.clearRect(0, 0, width, height);
    Project project = view.session().project();
    double stepFrames = step(project) * project.sampleRate();
    double first = Math.floor(view.axis().startFrame() / stepFrames);
    double last =
        Math.ceil((view.axis().startFrame() + width * view.axis().framesPerPixel()) / stepFrames);
    g.setFont(FONT);
    g.setLineWidth(1);
    for (double i = first; i <= last; i++) {
      double x = Math.round(view.axis().xOf(i * stepFrames)) + 0.5;
      g.setStroke(view.palette().faintInk());
      g.strokeLine(x, height - 8, x, height);
      g.setFill(view.palette().faintInk());
      g.fillText(
          Timecode.format(Math.round(i * stepFrames), project.pictureRate(), project.sampleRate()),
          x + 4,
          height - 8);
      g.setStroke(view.palette().edge());
      for (int minor = 1; minor < 5; minor++) {
        double mx = Math.round(view.axis().xOf((i + minor / 5.0) * stepFrames)) + 0.5;
        g.strokeLine(mx, height - 4, mx, height);
      }
    }
  }

  private double step(Project project) {
    double secondsPerPixel = view.axis().framesPerPixel() / project.sampleRate();
    for (double step : STEPS_SECONDS) {
      if (step / secondsPerPixel >= LABEL_WIDTH) {
        return step;
      }
    }
    return STEPS_SECONDS[STEPS_SECONDS.length - 1];
  }
}

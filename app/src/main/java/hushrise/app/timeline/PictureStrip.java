package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.TrackKind;
import java.util.Optional;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.image.Image;
import javafx.scene.layout.Region;

/**
 * The film as a row of stills, each the picture at its left edge. Pressing on it moves the
 * playhead.
 */
final class PictureStrip extends Region {

  private final Viewport view;
  private final Stills stills;
  private final Canvas canvas = new Canvas();

  PictureStrip(Viewport view, Stills stills) {
    this.view = view;
    this.stills = stills;
    setId("lane-picture");
    getStyleClass().add("lane");
    setAccessibleText(text("strip.accessible"));
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
    g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
    Project project = view.session().project();
    project.tracksOf(TrackKind.PICTURE).forEach(t -> t.clips().forEach(c -> draw(g, project, c)));
  }

  private void draw(GraphicsContext g, Project project, Clip clip) {
    Media media = project.media(clip.mediaId()).orElseThrow();
    if (media.pictureRate().isEmpty()) {
      return;
    }
    double height = canvas.getHeight();
    double stillWidth = Math.round(height * Stills.WIDTH / Stills.HEIGHT);
    double left = view.axis().xOf(clip.startFrame());
    double right = view.axis().xOf(clip.endFrame());
    g.save();
    g.beginPath();
    g.rect(Math.max(0, left), 0, Math.min(canvas.getWidth(), right) - Math.max(0, left), height);
    g.clip();
    double first = left + Math.floor(Math.max(0, -left) / stillWidth) * stillWidth;
    for (double x = first; x < Math.min(right, canvas.getWidth()); x += stillWidth) {
      long frame = Math.max(0, view.axis().frameAt(x) - clip.startFrame());
      Optional<Image> still =
          stills.at(media, project.seconds(clip.mediaFrameAt(frame)), this::redraw);
      g.setFill(view.palette().picture());
      g.fillRect(x, 0, stillWidth, height);
      if (still.isPresent()) {
        Image image = still.get();
        g.drawImage(image, x, 0, height * image.getWidth() / image.getHeight(), height);
      }
    }
    g.restore();
    g.setStroke(view.palette().picture());
    g.strokeRect(left + 0.5, 0.5, right - left - 1, height - 1);
  }
}

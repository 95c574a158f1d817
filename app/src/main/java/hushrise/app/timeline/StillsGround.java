package hushrise.app.timeline;

import hushrise.app.look.Ruled;
import hushrise.app.widget.Stills;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.image.Image;
import javafx.scene.paint.Color;
import javafx.scene.paint.CycleMethod;
import javafx.scene.paint.LinearGradient;
import javafx.scene.paint.Stop;

/**
 * A picture track as a row of stills, each the picture at its left edge; its cuts, and its fade.
 */
final class StillsGround implements Ground {

  /** What is narrower shows nothing, and of a film in a thousand pieces all would be asked for. */
  private static final double LEAST_WIDTH = 8;

  private final Viewport view;
  private final Stills stills;
  private final Canvas canvas = new Canvas();

  StillsGround(Viewport view, Stills stills) {
    this.view = view;
    this.stills = stills;
  }

  @Override
  public Node node() {
    return canvas;
  }

  @Override
  public boolean draw(Track track, TrackCurve curve, int width, int height) {
    canvas.setWidth(width);
    canvas.setHeight(height);
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.setFill(view.palette().sunken());
    g.fillRect(0, 0, width, height);
    Project project = view.session().shown();
    boolean all = true;
    for (Clip clip : track.clipsInTime()) {
      all &= draw(g, project, clip);
    }
    view.cuts().fadeToBlack().ifPresent(f -> fade(g, f));
    g.setFill(view.palette().accent());
    for (long cut : view.cuts().frames()) {
      double x = view.axis().xOf(cut);
      g.fillPolygon(new double[] {x - 4, x + 4, x}, new double[] {height, height, height - 7.0}, 3);
    }
    return all;
  }

  @Override
  public void letGo() {
    canvas.setWidth(0);
  }

  private void fade(GraphicsContext g, Span fade) {
    double from = view.axis().xOf(fade.startFrame());
    double to = view.axis().xOf(fade.endFrame());
    g.setFill(
        new LinearGradient(
            from,
            0,
            to,
            0,
            false,
            CycleMethod.NO_CYCLE,
            new Stop(0, Color.TRANSPARENT),
            new Stop(1, Color.gray(0, 0.8))));
    g.fillRect(from, 0, to - from, canvas.getHeight());
  }

  /** Draws a clip; gives whether all its stills were there. */
  private boolean draw(GraphicsContext g, Project project, Clip clip) {
    double left = view.axis().xOf(clip.startFrame());
    double right = view.axis().xOf(clip.endFrame());
    if (right <= 0 || left >= canvas.getWidth()) {
      return true;
    }
    boolean all = right - left < LEAST_WIDTH || stills(g, project, clip, left, right);
    g.setFill(view.palette().picture());
    Ruled.frame(g, left, 0, right - left, canvas.getHeight(), 1);
    return all;
  }

  private boolean stills(GraphicsContext g, Project project, Clip clip, double left, double right) {
    boolean all = true;
    Media media = project.media(clip.mediaId()).orElseThrow();
    double height = canvas.getHeight();
    double stillWidth = Math.max(LEAST_WIDTH, Math.round(height * stills.aspect(media)));
    g.save();
    g.beginPath();
    g.rect(Math.max(0, left), 0, Math.min(canvas.getWidth(), right) - Math.max(0, left), height);
    g.clip();
    double first = left + Math.floor(Math.max(0, -left) / stillWidth) * stillWidth;
    for (double x = first; x < Math.min(right, canvas.getWidth()); x += stillWidth) {
      long frame = Math.max(0, view.axis().frameAt(x) - clip.startFrame());
      Optional<Image> still = stills.at(media, project.seconds(clip.mediaFrameAt(frame)));
      all &= still.isPresent();
      g.setFill(view.palette().picture());
      g.fillRect(x, 0, stillWidth, height);
      if (still.isPresent()) {
        Image image = still.get();
        g.drawImage(image, x, 0, height * image.getWidth() / image.getHeight(), height);
      }
    }
    g.restore();
    return all;
  }
}

package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.core.Decibels;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import hushrise.core.sound.Peaks;
import java.util.Optional;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Region;

/**
 * The whole film in one strip: where somebody speaks above, how high the music stands below. The
 * framed part is what the timeline shows; dragging it travels.
 */
public final class OverviewStrip extends Region {

  private static final double LOWEST_DB = -48;

  private final Viewport view;
  private final PeaksShelf peaks;
  private final Canvas canvas = new Canvas();
  private final Canvas marks = new Canvas();
  private final float[] column = new float[3];

  OverviewStrip(Viewport view, PeaksShelf peaks) {
    this.view = view;
    this.peaks = peaks;
    setId("overview");
    getStyleClass().add("overview");
    setAccessibleText(text("overview.accessible"));
    getChildren().addAll(canvas, marks);
    setOnMousePressed(e -> travel(e.getX()));
    setOnMouseDragged(e -> travel(e.getX()));
    setOnMouseMoved(e -> view.hint(text("hint.overview")));
  }

  private TimeAxis whole() {
    return TimeAxis.fitting(Math.max(1, view.session().project().lengthFrames()), getWidth());
  }

  private void travel(double x) {
    view.centre(whole().frameAt(x));
  }

  @Override
  protected void layoutChildren() {
    canvas.setWidth(getWidth());
    canvas.setHeight(getHeight());
    marks.setWidth(getWidth());
    marks.setHeight(getHeight());
    redraw();
  }

  void redraw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double width = canvas.getWidth();
    double height = canvas.getHeight();
    g.clearRect(0, 0, width, height);
    Project project = view.session().project();
    TimeAxis axis = whole();
    project.tracksOf(TrackKind.MUSIC).forEach(t -> music(g, project, t, axis));
    g.setFill(view.palette().voice());
    project
        .tracksOf(TrackKind.VOICE)
        .flatMap(t -> t.clips().stream())
        .forEach(
            c ->
                g.fillRoundRect(
                    axis.xOf(c.startFrame()),
                    5,
                    Math.max(2, c.lengthFrames() / axis.framesPerPixel()),
                    7,
                    4,
                    4));
    moveMarks();
  }

  /** Draws the frame of what is in view and the playhead, over the film. */
  void moveMarks() {
    GraphicsContext g = marks.getGraphicsContext2D();
    double width = marks.getWidth();
    double height = marks.getHeight();
    g.clearRect(0, 0, width, height);
    TimeAxis axis = whole();
    double from = axis.xOf(view.axis().startFrame());
    double to = axis.xOf(view.axis().startFrame() + view.width() * view.axis().framesPerPixel());
    g.setFill(view.palette().background().deriveColor(0, 1, 1, 0.6));
    g.fillRect(0, 0, from, height);
    g.fillRect(to, 0, width - to, height);
    g.setStroke(view.palette().ink());
    g.setLineWidth(1.5);
    g.strokeRoundRect(from + 1, 1, Math.max(4, Math.min(to, width) - from - 2), height - 2, 6, 6);
    double x = axis.xOf(view.session().playhead());
    g.setStroke(view.palette().accent());
    g.setLineWidth(2);
    g.strokeLine(x, 0, x, height);
  }

  private void music(GraphicsContext g, Project project, Track track, TimeAxis axis) {
    TrackCurve curve = TrackCurve.of(track, project.sampleRate());
    g.setFill(view.palette().music());
    for (Clip clip : track.clips()) {
      Media media = project.media(clip.mediaId()).orElseThrow();
      Optional<Peaks> found = peaks.get(media, this::redraw);
      if (found.isPresent()) {
        columns(g, clip, found.get(), curve, axis);
      }
    }
  }

  private void columns(GraphicsContext g, Clip clip, Peaks found, TrackCurve curve, TimeAxis axis) {
    double height = canvas.getHeight();
    double half = axis.framesPerPixel();
    for (double x = Math.max(0, axis.xOf(clip.startFrame()));
        x < axis.xOf(clip.endFrame());
        x += 2) {
      long frame = Math.clamp(axis.frameAt(x + 1), clip.startFrame(), clip.endFrame() - 1);
      double media = clip.mediaFrameAt(frame - clip.startFrame());
      found.over(media - half, media + half, column);
      double db =
          Decibels.ofFactor(column[2] * clip.fadeFactorAt(frame))
              + clip.gainDb()
              + curve.levelDbAt(frame);
      double h = (height - 16) * Math.clamp((db - LOWEST_DB) / -LOWEST_DB, 0, 1);
      g.fillRect(x, height - 2 - h, 1.4, h);
    }
  }
}

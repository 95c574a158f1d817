package hushrise.app.widget;

import hushrise.app.look.Palette;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;

/** A small picture of a project: its clips by track, and where its hushes dip. */
public final class ProjectSketch extends Canvas {

  private static final double GAP = 2;

  /** A hush of this depth reaches down to the end of its track. */
  private static final double DEEPEST_DB = 30;

  /**
   * Draws a project.
   *
   * @param width in pixels
   * @param height in pixels
   */
  public ProjectSketch(Project project, Palette palette, double width, double height) {
    super(width, height);
    GraphicsContext g = getGraphicsContext2D();
    g.setFill(palette.sunken());
    g.fillRect(0, 0, width, height);
    List<Track> tracks = project.tracks();
    double scale = width / Math.max(1, project.lengthFrames());
    double row = (height - GAP) / Math.max(1, tracks.size());
    for (int i = 0; i < tracks.size(); i++) {
      Track track = tracks.get(i);
      double top = GAP + i * row;
      g.setFill(palette.of(track.kind()));
      for (Clip clip : track.clips()) {
        g.fillRect(
            clip.startFrame() * scale,
            top,
            Math.max(1, clip.lengthFrames() * scale - 1),
            Math.max(1, row - GAP));
      }
      g.setFill(palette.sunken());
      for (Hush hush : track.hushes()) {
        Hush.Knots knots = hush.knots(project.sampleRate());
        g.fillRect(
            knots.start() * scale,
            top,
            Math.max(1, (knots.end() - knots.start()) * scale),
            (row - GAP) * Math.clamp(-hush.depthDb() / DEEPEST_DB, 0.1, 0.9));
      }
    }
  }
}

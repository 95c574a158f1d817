package hushrise.app.timeline;

import hushrise.app.look.Palette;
import hushrise.app.look.Ruled;
import hushrise.app.session.Selection;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import java.nio.file.Path;
import java.util.Set;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** Draws what lies over a lane's ground: names, what is lit or chosen, a drag's sign. */
final class LanePainter {

  private static final Font BOLD = Font.font("Atkinson Hyperlegible Next SemiBold", 12);

  /** Levels that lie no further apart are drawn as one. */
  private static final double SAME_DB = 0.05;

  /** How far the sign of a drag stays from what is dragged, in pixels. */
  private static final double SIGN_AWAY = 20;

  private static final double SIGN_ABOVE = 34;

  private final GraphicsContext g;
  private final Palette palette;
  private final LaneGeometry geometry;
  private final Project project;
  private final double width;
  private final double height;
  private final Set<Path> missing;

  /**
   * @param missing files that are not where they were
   */
  LanePainter(
      GraphicsContext g,
      Palette palette,
      LaneGeometry geometry,
      Project project,
      Set<Path> missing) {
    this.missing = missing;
    this.g = g;
    this.palette = palette;
    this.geometry = geometry;
    this.project = project;
    this.width = g.getCanvas().getWidth();
    this.height = g.getCanvas().getHeight();
  }

  /** Draws everything; {@code lit} is what a press would take hold of. */
  void paint(Selection selection, Target lit) {
    g.clearRect(0, 0, width, height);
    Track track = geometry.track();
    ClipPainter clips = new ClipPainter(g, palette, geometry, project, missing);
    track.clips().forEach(c -> clips.clip(c, selection, lit));
    if (track.kind().sounds()) {
      span(selection);
      new ShapePainter(g, palette, geometry, project).paint(selection, lit);
      track.clips().forEach(c -> clips.fadeHandles(c, lit));
      if (track.isVoice()) {
        track.clips().forEach(c -> clips.passages(c, selection, lit));
      }
    }
  }

  /** Dashes where the level ran before a draft that is shown, as far as it ran elsewhere. */
  void before(Track was) {
    Track is = geometry.track();
    if (!was.kind().sounds() || was.shaping().equals(is.shaping())) {
      return;
    }
    TrackCurve before = TrackCurve.of(was, project.sampleRate());
    TrackCurve now = TrackCurve.of(is, project.sampleRate());
    g.setStroke(palette.ink());
    g.setLineWidth(1.5);
    g.setLineDashes(5, 4);
    g.beginPath();
    boolean apart = false;
    for (double x = 0; x <= width; x += 2) {
      long frame = geometry.axis().frameAt(x);
      double levelDb = before.levelDbAt(frame) - was.levelDb();
      boolean wasApart = apart;
      apart = Math.abs(levelDb - (now.levelDbAt(frame) - is.levelDb())) > SAME_DB;
      double y = geometry.scale().yOf(levelDb);
      if (apart && wasApart) {
        g.lineTo(x, y);
      } else if (apart) {
        g.moveTo(x, y);
      }
    }
    g.stroke();
    g.setLineDashes();
  }

  /** The selected stretch of time. */
  private void span(Selection selection) {
    if (selection instanceof Selection.OfSpan s && s.trackId().equals(geometry.track().id())) {
      double from = Math.max(-2, geometry.axis().xOf(s.span().startFrame()));
      double to = Math.min(width + 2, geometry.axis().xOf(s.span().endFrame()));
      g.setFill(palette.accent().deriveColor(0, 1, 1, 0.14));
      g.fillRect(from, 0, Math.max(1, to - from), height);
      g.setFill(palette.accent());
      Ruled.vertical(g, from, 0, height, 1.5);
      Ruled.vertical(g, to, 0, height, 1.5);
    }
  }

  /** A small sign with a drag's number, kept inside the lane. */
  void sign(String words, double x, double y) {
    g.setFont(BOLD);
    double w = words.length() * 6.6 + 16;
    boolean roomRight = x + SIGN_AWAY + w <= width - 2;
    double left = roomRight ? x + SIGN_AWAY : Math.max(2, x - SIGN_AWAY - w);
    double top = Math.clamp(y - SIGN_ABOVE, 2, Math.max(2, height - 24));
    g.setFill(palette.ink());
    Ruled.plate(g, left, top, w, 22);
    g.setFill(palette.surface());
    g.setTextAlign(TextAlignment.CENTER);
    g.fillText(words, left + w / 2, top + 15);
  }
}

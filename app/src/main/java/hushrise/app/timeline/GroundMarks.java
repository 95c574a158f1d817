package hushrise.app.timeline;

import hushrise.app.look.Palette;
import hushrise.app.look.Pixels;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.timeline.Clip;
import javafx.scene.paint.Color;

/**
 * Draws into a lane's pixels what does not change as things are pointed at: the dB grid, the edges
 * of clips, keyframes and the handles of fades. What is lit or chosen is drawn over it.
 */
final class GroundMarks {

  /** Keyframes closer than this to a full one are drawn as small ones, in the window's units. */
  static final double CLOSEST_BEADS = 13;

  /** Keyframes closer than this to one that is drawn are left out. */
  static final double CLOSEST_POINTS = 2;

  static final double BEAD = 4.5;
  static final double POINT = 2.6;
  static final double FLAG = 8;

  /** How far a mark may reach from its place. */
  static final double MARGIN = 10;

  private static final double[] GRID_DB = {0, -12, -24, -36};
  private static final double LEAST_GRID_HEIGHT = 80;

  private final Pixels pixels;
  private final double density;
  private final LaneGeometry geometry;
  private final Palette palette;

  GroundMarks(Pixels pixels, LaneGeometry geometry, Palette palette) {
    this.pixels = pixels;
    density = pixels.density();
    this.geometry = geometry;
    this.palette = palette;
  }

  /** The lines of the dB scale. */
  void grid() {
    if (geometry.scale().height() < LEAST_GRID_HEIGHT) {
      return;
    }
    for (double db : GRID_DB) {
      int y = (int) Math.round(density * geometry.scale().yOf(db));
      int ink = Pixels.premultiplied(palette.edge(), db == 0 ? 0.3 : 0.45);
      pixels.block(0, y, pixels.width(), y + pixels.thin(), ink);
    }
  }

  /** The edges of all clips. */
  void edges() {
    Color color = palette.of(geometry.track().kind());
    int ink = Pixels.premultiplied(color, 0.6);
    for (Clip clip : geometry.track().clips()) {
      double left = density * geometry.axis().xOf(clip.startFrame());
      double right = density * geometry.axis().xOf(clip.endFrame());
      if (right >= 0 && left <= pixels.width()) {
        int thin = pixels.thin();
        int from = (int) Math.round(Math.max(-2 * MARGIN, left));
        int to = (int) Math.round(Math.min(pixels.width() + 2 * MARGIN, right));
        pixels.block(from, 0, from + thin, pixels.height(), ink);
        pixels.block(to - thin, 0, to, pixels.height(), ink);
        pixels.block(from + thin, 0, to - thin, thin, ink);
      }
    }
  }

  /** The handles of the fades of all clips that have room for them. */
  void handles() {
    int ink = Pixels.premultiplied(palette.ink(), 1);
    for (Clip clip : geometry.track().clips()) {
      if (geometry.hasHandles(clip)) {
        handle(geometry.fadeInX(clip), 1, ink);
        handle(geometry.fadeOutX(clip), -1, ink);
      }
    }
  }

  private void handle(double x, int lean, int ink) {
    double at = density * x;
    double size = density * FLAG;
    if (at >= -size && at <= pixels.width() + size) {
      pixels.flag(at, lean, density * 2, size, ink);
    }
  }

  /**
   * The keyframes in view; where they lie close, only some of them in full and the others small,
   * and where they lie closer than can be told apart, only some at all: always the same, wherever
   * the view begins.
   *
   * @return whether none was left out
   */
  boolean beads() {
    int fill = Pixels.premultiplied(palette.sunken(), 1);
    int ring = Pixels.premultiplied(palette.ink(), 1);
    double last = Double.NEGATIVE_INFINITY;
    double lastDrawn = Double.NEGATIVE_INFINITY;
    boolean all = true;
    for (Keyframe keyframe : geometry.track().line().keyframes()) {
      double x = geometry.x(keyframe);
      if (x > pixels.to() / density + MARGIN) {
        break;
      }
      boolean apart = x - last >= CLOSEST_BEADS;
      boolean told = x - lastDrawn >= CLOSEST_POINTS;
      if (x >= pixels.from() / density - MARGIN && (apart || told)) {
        double radius = density * (apart ? BEAD : POINT);
        pixels.bead(density * x, density * geometry.y(keyframe), radius, fill, ring);
      }
      last = apart ? x : last;
      lastDrawn = apart || told ? x : lastDrawn;
      all &= apart;
    }
    return all;
  }
}

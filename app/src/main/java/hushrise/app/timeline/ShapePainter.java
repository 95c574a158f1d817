package hushrise.app.timeline;

import hushrise.app.look.Palette;
import hushrise.app.look.Ruled;
import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/**
 * Draws what shapes the level: basins of hushes, swells of rises, the lit line and its keyframes.
 */
final class ShapePainter {

  private static final Font BOLD = Font.font("Atkinson Hyperlegible Next SemiBold", 12);

  /** The highest line of words that lie clear of the hot marks along a lane's upper edge. */
  private static final double CLEAR_OF_MARKS = 25;

  /** The highest line of words that lie clear of a clip's name, too. */
  private static final double CLEAR_OF_NAME = 38;

  private static final double LETTER = 6.2;

  /** How many letters say what a clip's fit is, behind its name. */
  private static final int FIT_LETTERS = 10;

  private final GraphicsContext g;
  private final Palette palette;
  private final LaneGeometry geometry;
  private final Project project;
  private final double width;
  private final double height;

  ShapePainter(GraphicsContext g, Palette palette, LaneGeometry geometry, Project project) {
    this.g = g;
    this.palette = palette;
    this.geometry = geometry;
    this.project = project;
    this.width = g.getCanvas().getWidth();
    this.height = g.getCanvas().getHeight();
  }

  /** Draws all of it. */
  void paint(Selection selection, Target lit) {
    Track track = geometry.track();
    track.rises().stream().filter(this::isInView).forEach(r -> swell(r, selection, lit));
    List<Hush> shown = track.hushes().stream().filter(this::isInView).toList();
    shown.forEach(h -> basin(h, selection, lit));
    stretch(lit);
    shown.forEach(h -> corners(h, selection, lit));
    beads(selection, lit);
    shown.forEach(h -> depth(h, lit));
  }

  /** The area between the line and a hush's curve. */
  private void basin(Hush hush, Selection selection, Target lit) {
    Hush.Knots k = hush.knots(project.sampleRate());
    double from = Math.max(0, geometry.axis().xOf(k.start()));
    double to = Math.min(width, geometry.axis().xOf(k.end()));
    boolean selected = selection instanceof Selection.OfHush h && h.hushId().equals(hush.id());
    boolean hovered = isLit(lit, hush.id());
    if (to <= from || !(selected || hovered)) {
      return;
    }
    g.beginPath();
    g.moveTo(from, lineY(from));
    for (double x = from; x <= to; x += 1.5) {
      double db = geometry.track().line().levelDbAt(geometry.axis().frameAt(x));
      g.lineTo(x, geometry.scale().yOf(db + k.levelDbAt(geometry.axis().frameAt(x))));
    }
    g.lineTo(to, lineY(to));
    for (double x = to; x >= from; x -= 4) {
      g.lineTo(x, lineY(x));
    }
    g.closePath();
    g.setFill(palette.hush().deriveColor(0, 1, 1, selected ? 0.24 : 0.14));
    g.fill();
  }

  private static boolean isLit(Target lit, String id) {
    return (lit instanceof Target.OnFloor f && f.hushId().equals(id))
        || (lit instanceof Target.OnShape s && s.id().equals(id));
  }

  /** The area between the line and a rise's curve. */
  private void swell(Rise rise, Selection selection, Target lit) {
    Hush.Knots k = rise.knots(project.sampleRate());
    double from = Math.max(0, geometry.axis().xOf(k.start()));
    double to = Math.min(width, geometry.axis().xOf(k.end()));
    if (to <= from) {
      return;
    }
    boolean selected = selection instanceof Selection.OfRise r && r.riseId().equals(rise.id());
    boolean hovered = isLit(lit, rise.id());
    if (selected || hovered) {
      swellArea(k, from, to, selected);
    }
    double left = geometry.axis().xOf(k.floorStart());
    double right = geometry.axis().xOf(k.floorEnd());
    double top = geometry.topY(rise, k);
    if (selected || hovered) {
      g.setFill(palette.rise());
      Ruled.horizontal(g, Math.max(0, left), Math.min(width, right), top, 4);
      double foot = geometry.lineY((k.floorStart() + k.floorEnd()) / 2);
      knob(left, top, palette.rise());
      knob(right, top, palette.rise());
      knob(geometry.axis().xOf(k.start()), foot, palette.rise());
      knob(geometry.axis().xOf(k.end()), foot, palette.rise());
    }
    if (right - left > 46 && height >= 80) {
      double x = Math.clamp((left + right) / 2, 30, Math.max(30, width - 30));
      boolean aside = top - 6 < CLEAR_OF_NAME && isAtName(x);
      double y = aside ? Math.max(CLEAR_OF_NAME, top + 15) : Math.max(CLEAR_OF_MARKS, top - 6);
      label(LevelText.format(rise.heightDb()), x, y, palette.rise());
    }
  }

  /** Whether a height written around a place would stand over the name of a clip. */
  private boolean isAtName(double x) {
    for (Clip clip : geometry.track().clips()) {
      double from = Math.max(0, geometry.axis().xOf(clip.startFrame()));
      double name = Math.max(from, geometry.fadeInX(clip)) + 13;
      int letters =
          project.media(clip.mediaId()).map(m -> m.title().length()).orElse(0) + FIT_LETTERS;
      boolean shown = geometry.axis().xOf(clip.endFrame()) > from;
      if (shown && x + 30 > name && x - 30 < name + letters * LETTER) {
        return true;
      }
    }
    return false;
  }

  /** Words that stay readable over lines. */
  private void label(String words, double x, double y, Color ink) {
    g.setFill(palette.sunken().deriveColor(0, 1, 1, 0.85));
    double w = words.length() * 6.6 + 6;
    Ruled.plate(g, x - w / 2, y - 11, w, 14);
    g.setFont(BOLD);
    g.setFill(ink);
    g.setTextAlign(TextAlignment.CENTER);
    g.fillText(words, x, y);
  }

  private void swellArea(Hush.Knots k, double from, double to, boolean selected) {
    g.beginPath();
    g.moveTo(from, lineY(from));
    for (double x = from; x <= to; x += 1.5) {
      long frame = geometry.axis().frameAt(x);
      double db = geometry.track().line().levelDbAt(frame) + k.levelDbAt(frame);
      g.lineTo(x, geometry.scale().yOf(db));
    }
    for (double x = to; x >= from; x -= 4) {
      g.lineTo(x, lineY(x));
    }
    g.closePath();
    g.setFill(palette.rise().deriveColor(0, 1, 1, selected ? 0.24 : 0.14));
    g.fill();
  }

  private boolean isInView(Hush hush) {
    return isInView(hush.knots(project.sampleRate()));
  }

  private boolean isInView(Rise rise) {
    return isInView(rise.knots(project.sampleRate()));
  }

  private boolean isInView(Hush.Knots k) {
    return geometry.axis().xOf(k.end()) >= 0 && geometry.axis().xOf(k.start()) <= width;
  }

  /** The corners and sides of a hush that can be taken hold of. */
  private void corners(Hush hush, Selection selection, Target lit) {
    boolean selected = selection instanceof Selection.OfHush h && h.hushId().equals(hush.id());
    if (!selected && !isLit(lit, hush.id())) {
      return;
    }
    Hush.Knots k = hush.knots(project.sampleRate());
    double floor = geometry.floorY(hush, k);
    knob(geometry.axis().xOf(k.start()), geometry.lineY(k.start()), palette.hush());
    knob(geometry.axis().xOf(k.end()), geometry.lineY(k.end()), palette.hush());
    g.setFill(palette.hush());
    for (long side : new long[] {k.floorStart(), k.floorEnd()}) {
      double x = geometry.axis().xOf(side);
      Ruled.vertical(g, x, geometry.lineY(side) + 6, floor, 1.5);
    }
  }

  private void knob(double x, double y, Color ring) {
    g.setFill(ring);
    g.fillRect(x - 5, y - 5, 10, 10);
    g.setFill(palette.sunken());
    g.fillRect(x - 3, y - 3, 6, 6);
  }

  private double lineY(double x) {
    return geometry.scale().yOf(geometry.track().line().levelDbAt(geometry.axis().frameAt(x)));
  }

  private void depth(Hush hush, Target lit) {
    Hush.Knots k = hush.knots(project.sampleRate());
    double from = geometry.axis().xOf(k.floorStart());
    double to = geometry.axis().xOf(k.floorEnd());
    double y = geometry.floorY(hush, k);
    if (lit instanceof Target.OnFloor f && f.hushId().equals(hush.id())) {
      g.setFill(palette.hush());
      Ruled.horizontal(g, Math.max(0, from), Math.min(width, to), y, 5);
    }
    if (to - from > 46 && height >= 80) {
      g.setFont(BOLD);
      g.setFill(palette.hush());
      g.setTextAlign(TextAlignment.CENTER);
      double above = y - 7;
      g.fillText(
          LevelText.format(hush.depthDb()),
          Math.clamp((from + to) / 2, 30, Math.max(30, width - 30)),
          above);
    }
  }

  /** The stretch of line that a press would take hold of, if the line that is shown has it. */
  private void stretch(Target lit) {
    var keyframes = geometry.track().line().keyframes();
    if (lit instanceof Target.OnStretch s && s.nextIndex() <= keyframes.size()) {
      double from = s.nextIndex() == 0 ? 0 : geometry.x(keyframes.get(s.nextIndex() - 1));
      double to =
          s.nextIndex() >= keyframes.size() ? width : geometry.x(keyframes.get(s.nextIndex()));
      strokeLine(palette.accent(), 3, Math.max(0, from), Math.min(width, to));
    }
  }

  /** The line alone, without hushes and rises. */
  private void strokeLine(Color stroke, double thickness, double from, double to) {
    g.setStroke(stroke);
    g.setLineWidth(thickness);
    g.beginPath();
    g.moveTo(from, lineY(from));
    for (double x = from; x < to; x += 2) {
      g.lineTo(x, lineY(x));
    }
    g.lineTo(to, lineY(to));
    g.stroke();
  }

  /** The keyframes that are lit or chosen. */
  private void beads(Selection selection, Target lit) {
    List<Keyframe> all = geometry.track().line().keyframes();
    if (lit instanceof Target.OnKeyframe h && h.index() < all.size()) {
      bead(all.get(h.index()), selection, true);
    }
    if (selection instanceof Selection.OfKeyframe s && s.trackId().equals(geometry.track().id())) {
      for (long frame : s.all()) {
        geometry.track().line().at(frame).ifPresent(k -> bead(k, selection, isLit(lit, k)));
      }
    }
  }

  private boolean isLit(Target lit, Keyframe keyframe) {
    List<Keyframe> all = geometry.track().line().keyframes();
    return lit instanceof Target.OnKeyframe h
        && h.index() < all.size()
        && all.get(h.index()).equals(keyframe);
  }

  private void bead(Keyframe k, Selection selection, boolean hovered) {
    double x = geometry.x(k);
    double y = geometry.y(k);
    if (x < -10 || x > width + 10) {
      return;
    }
    boolean selected =
        selection instanceof Selection.OfKeyframe s
            && s.all().contains(k.frame())
            && s.trackId().equals(geometry.track().id());
    double r = 6;
    g.setFill(selected ? palette.accent() : palette.sunken());
    g.fillOval(x - r, y - r, 2 * r, 2 * r);
    g.setStroke(hovered ? palette.accent() : palette.ink());
    g.setLineWidth(2);
    g.strokeOval(x - r, y - r, 2 * r, 2 * r);
  }
}

package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.app.look.Palette;
import hushrise.core.project.Clip;
import hushrise.core.project.Hush;
import hushrise.core.project.Keyframe;
import hushrise.core.project.LevelLine;
import hushrise.core.project.LevelText;
import hushrise.core.project.Project;
import hushrise.core.project.Rise;
import hushrise.core.project.Seam;
import hushrise.core.project.Track;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/**
 * Draws what lies over a lane's waveforms: the dB grid, clips, basins of hushes, the level line.
 */
final class LanePainter {

  private static final double[] GRID_DB = {0, -12, -24, -36};

  /** Keyframes closer than this are not all drawn, in pixels. */
  private static final double CLOSEST_BEADS = 13;

  private static final double LETTER_WIDTH = 5.4;
  private static final Font SMALL = Font.font("Atkinson Hyperlegible Next", 11);
  private static final Font BOLD = Font.font("Atkinson Hyperlegible Next SemiBold", 12);

  private final GraphicsContext g;
  private final Palette palette;
  private final LaneGeometry geometry;
  private final Project project;
  private final double width;
  private final double height;
  private final Color color;

  LanePainter(GraphicsContext g, Palette palette, LaneGeometry geometry, Project project) {
    this.g = g;
    this.palette = palette;
    this.geometry = geometry;
    this.project = project;
    this.width = g.getCanvas().getWidth();
    this.height = g.getCanvas().getHeight();
    this.color = colorOf(geometry.track(), palette);
  }

  static Color colorOf(Track track, Palette palette) {
    return switch (track.kind()) {
      case PICTURE -> palette.picture();
      case VOICE -> palette.voice();
      case CAMERA -> palette.camera();
      case MUSIC -> palette.music();
      case EFFECTS -> palette.effects();
    };
  }

  /** Draws everything; {@code lit} is what a press would take hold of. */
  void paint(Selection selection, Target lit) {
    g.clearRect(0, 0, width, height);
    if (height >= 80 && geometry.track().kind().sounds()) {
      grid();
    }
    Track track = geometry.track();
    track.clips().forEach(c -> clip(c, selection, lit));
    if (track.kind().sounds()) {
      span(selection);
      track.rises().stream().filter(this::isInView).forEach(r -> swell(r, selection, lit));
      List<Hush> shown = track.hushes().stream().filter(this::isInView).toList();
      shown.forEach(h -> basin(h, selection, lit));
      stretch(lit);
      shown.forEach(h -> corners(h, selection, lit));
      beads(selection, lit);
      shown.forEach(h -> depth(h, lit));
      track.clips().forEach(c -> fadeHandles(c, lit));
    }
  }

  private void grid() {
    g.setLineWidth(1);
    for (double db : GRID_DB) {
      double y = Math.round(geometry.scale().yOf(db)) + 0.5;
      g.setStroke(palette.edge().deriveColor(0, 1, 1, db == 0 ? 0.3 : 0.45));
      g.strokeLine(0, y, width, y);
    }
  }

  private void clip(Clip clip, Selection selection, Target lit) {
    double left = geometry.axis().xOf(clip.startFrame());
    double right = geometry.axis().xOf(clip.endFrame());
    if (right < 0 || left > width) {
      return;
    }
    boolean selected = selection.clipIds().contains(clip.id());
    boolean hovered = lit instanceof Target.OnClip c && c.clipId().equals(clip.id());
    double from = Math.max(-4, left);
    double to = Math.min(width + 4, right);
    g.setStroke(selected ? palette.accent() : color.deriveColor(0, 1, 1, hovered ? 1 : 0.6));
    g.setLineWidth(selected ? 2 : 1);
    if (selected) {
      g.strokeRoundRect(from + 0.5, 0.5, Math.max(1, to - from - 1), height - 1, 6, 6);
    } else {
      double l = Math.round(from) + 0.5;
      double r = Math.round(to) - 0.5;
      g.strokeLine(l, 0, l, height);
      g.strokeLine(r, 0, r, height);
      g.strokeLine(l, 0.5, r, 0.5);
    }
    edge(clip, lit, left, right);
    fadeCurve(clip);
    for (int i = 0; i < clip.seams().size(); i++) {
      seam(clip, i, selection, lit);
    }
    if (to - from > 70 && geometry.track().kind().sounds()) {
      g.setFont(SMALL);
      g.setFill(palette.ink());
      g.setTextAlign(TextAlignment.LEFT);
      String name = project.media(clip.mediaId()).map(m -> m.title()).orElse("");
      String title = clip.fit().map(f -> text("clip.fitted." + f.mode().name(), name)).orElse(name);
      double inset = Math.max(0, geometry.fadeInX(clip) - from) + 13;
      double y = height >= 80 ? 12 : geometry.scale().yOf(0) + 13;
      double room = to - from - inset - 14;
      g.fillText(shortened(title, room), Math.max(8, from + inset), y);
    }
  }

  /** A title without its ending; where room lacks, its middle goes, as takes differ at the end. */
  private static String shortened(String title, double room) {
    int most = (int) (room / LETTER_WIDTH);
    if (title.length() <= most) {
      return title;
    }
    String bare = title.replaceFirst("\\.[A-Za-z0-9]{2,5}(?=$| )", "");
    if (bare.length() <= most || most < 5) {
      return most < 3 ? "" : bare.substring(0, Math.min(most, bare.length()));
    }
    int tail = Math.min(3, most - 2);
    return bare.substring(0, most - 1 - tail) + "\u2026" + bare.substring(bare.length() - tail);
  }

  /** Lights the edge that a press would take hold of. */
  private void edge(Clip clip, Target lit, double left, double right) {
    boolean start = lit instanceof Target.OnClipStart c && c.clipId().equals(clip.id());
    boolean end = lit instanceof Target.OnClipEnd c && c.clipId().equals(clip.id());
    if (start || end) {
      double x = start ? left + 1.5 : right - 1.5;
      g.setStroke(palette.accent());
      g.setLineWidth(3);
      g.strokeLine(x, 2, x, height - 2);
    }
  }

  /**
   * Where a song jumps: a dotted line with a foot to take hold of, and how alike both sides are.
   */
  private void seam(Clip clip, int index, Selection selection, Target lit) {
    Seam seam = clip.seams().get(index);
    double x = geometry.axis().xOf(clip.startFrame() + seam.atFrame());
    if (x < -20 || x > width + 20) {
      return;
    }
    boolean chosen =
        selection instanceof Selection.OfSeam s
            && s.clipId().equals(clip.id())
            && s.index() == index;
    boolean hovered =
        lit instanceof Target.OnSeam s && s.clipId().equals(clip.id()) && s.index() == index;
    Color ink = chosen || hovered ? palette.accent() : palette.ink();
    g.setStroke(ink);
    g.setLineWidth(chosen ? 2 : 1);
    g.setLineDashes(2, 3);
    g.strokeLine(x, 14, x, height - 4);
    g.setLineDashes();
    g.setFill(ink);
    double foot = chosen || hovered ? 7 : 5;
    g.fillPolygon(
        new double[] {x - foot, x + foot, x},
        new double[] {height - 1, height - 1, height - 3 - 1.3 * foot},
        3);
    if (height >= 80 && seam.score() > 0) {
      g.setFont(SMALL);
      g.setTextAlign(TextAlignment.LEFT);
      String words = text("seam.score", "%.2f".formatted(seam.score()));
      g.setFill(palette.sunken().deriveColor(0, 1, 1, 0.85));
      g.fillRoundRect(x + 5, height - 17, words.length() * 5.6 + 4, 14, 4, 4);
      g.setFill(palette.ink());
      g.fillText(words, x + 8, height - 6);
    }
  }

  private void fadeCurve(Clip clip) {
    g.setStroke(palette.ink().deriveColor(0, 1, 1, 0.7));
    g.setLineWidth(1.2);
    if (clip.fadeIn().lengthFrames() > 0) {
      fadeCurve(clip, geometry.axis().xOf(clip.startFrame()), geometry.fadeInX(clip));
    }
    if (clip.fadeOut().lengthFrames() > 0) {
      fadeCurve(clip, geometry.fadeOutX(clip), geometry.axis().xOf(clip.endFrame()));
    }
  }

  private void fadeCurve(Clip clip, double from, double to) {
    double first = Math.max(0, from);
    double last = Math.min(width, to);
    g.beginPath();
    for (double x = first; x <= last; x += 2) {
      double factor = clip.fadeFactorAt(geometry.axis().frameAt(x));
      double y = LaneGeometry.HANDLE_Y + (1 - factor) * (height - LaneGeometry.HANDLE_Y - 2);
      if (x == first) {
        g.moveTo(x, y);
      } else {
        g.lineTo(x, y);
      }
    }
    g.stroke();
  }

  private void fadeHandles(Clip clip, Target lit) {
    boolean in = lit instanceof Target.OnFadeIn f && f.clipId().equals(clip.id());
    boolean out = lit instanceof Target.OnFadeOut f && f.clipId().equals(clip.id());
    handle(geometry.fadeInX(clip), 1, in);
    handle(geometry.fadeOutX(clip), -1, out);
  }

  /** A small flag that leans into the clip. */
  private void handle(double x, int lean, boolean lit) {
    if (x < -10 || x > width + 10) {
      return;
    }
    double size = lit ? 10 : 8;
    g.setFill(lit ? palette.accent() : palette.ink());
    g.fillPolygon(
        new double[] {x, x + lean * size, x}, new double[] {2, 2 + size * 0.6, 2 + size * 1.2}, 3);
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

  /** The selected stretch of time. */
  private void span(Selection selection) {
    if (selection instanceof Selection.OfSpan s && s.trackId().equals(geometry.track().id())) {
      double from = Math.max(-2, geometry.axis().xOf(s.span().startFrame()));
      double to = Math.min(width + 2, geometry.axis().xOf(s.span().endFrame()));
      g.setFill(palette.accent().deriveColor(0, 1, 1, 0.14));
      g.fillRect(from, 0, Math.max(1, to - from), height);
      g.setStroke(palette.accent());
      g.setLineWidth(1.5);
      g.strokeLine(from, 0, from, height);
      g.strokeLine(to, 0, to, height);
    }
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
      g.setStroke(palette.rise());
      g.setLineWidth(4);
      g.strokeLine(Math.max(0, left), top, Math.min(width, right), top);
      double foot = geometry.lineY((k.floorStart() + k.floorEnd()) / 2);
      knob(left, top, palette.rise());
      knob(right, top, palette.rise());
      knob(geometry.axis().xOf(k.start()), foot, palette.rise());
      knob(geometry.axis().xOf(k.end()), foot, palette.rise());
    }
    if (right - left > 46 && height >= 80) {
      g.setFont(BOLD);
      g.setFill(palette.rise());
      g.setTextAlign(TextAlignment.CENTER);
      double x = Math.clamp((left + right) / 2, 30, Math.max(30, width - 30));
      g.fillText(LevelText.format(rise.heightDb()), x, top - 6);
    }
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
    g.setStroke(palette.hush());
    g.setLineWidth(1.5);
    for (long side : new long[] {k.floorStart(), k.floorEnd()}) {
      double x = geometry.axis().xOf(side);
      g.strokeLine(x, geometry.lineY(side) + 6, x, floor);
    }
  }

  private void knob(double x, double y, Color ring) {
    g.setFill(palette.sunken());
    g.fillRect(x - 4, y - 4, 8, 8);
    g.setStroke(ring);
    g.setLineWidth(2);
    g.strokeRect(x - 4, y - 4, 8, 8);
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
      g.setStroke(palette.hush());
      g.setLineWidth(5);
      g.strokeLine(Math.max(0, from), y, Math.min(width, to), y);
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

  /** The stretch of line that a press would take hold of. */
  private void stretch(Target lit) {
    if (lit instanceof Target.OnStretch s) {
      var keyframes = geometry.track().line().keyframes();
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

  /** The keyframes in view; where they lie closer than can be told apart, only some of them. */
  private void beads(Selection selection, Target lit) {
    LevelLine line = geometry.track().line();
    int first = line.indexAfter(geometry.axis().frameAt(-10));
    int end = line.indexAfter(geometry.axis().frameAt(width + 10));
    double last = Double.NEGATIVE_INFINITY;
    for (int i = first; i < end; i++) {
      double x = geometry.x(line.keyframes().get(i));
      boolean marked = lit instanceof Target.OnKeyframe h && h.index() == i;
      if (x - last >= CLOSEST_BEADS || marked) {
        bead(i, selection, lit);
        last = x;
      }
    }
  }

  private void bead(int index, Selection selection, Target lit) {
    Keyframe k = geometry.track().line().keyframes().get(index);
    double x = geometry.x(k);
    double y = geometry.y(k);
    boolean selected =
        selection instanceof Selection.OfKeyframe s
            && s.all().contains(k.frame())
            && s.trackId().equals(geometry.track().id());
    boolean hovered = lit instanceof Target.OnKeyframe h && h.index() == index;
    double r = hovered || selected ? 6 : 4.5;
    g.setFill(selected ? palette.accent() : palette.sunken());
    g.fillOval(x - r, y - r, 2 * r, 2 * r);
    g.setStroke(hovered ? palette.accent() : palette.ink());
    g.setLineWidth(2);
    g.strokeOval(x - r, y - r, 2 * r, 2 * r);
  }

  /** A small sign with a drag's number, kept inside the lane. */
  void sign(String words, double x, double y) {
    g.setFont(BOLD);
    double w = words.length() * 6.6 + 16;
    double left = Math.clamp(x + 12, 2, Math.max(2, width - w - 2));
    double top = Math.clamp(y - 30, 2, Math.max(2, height - 24));
    g.setFill(palette.ink());
    g.fillRoundRect(left, top, w, 22, 6, 6);
    g.setFill(palette.surface());
    g.setTextAlign(TextAlignment.CENTER);
    g.fillText(words, left + w / 2, top + 15);
  }
}

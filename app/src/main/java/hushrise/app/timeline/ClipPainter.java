package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.look.Palette;
import hushrise.app.look.Ruled;
import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** Draws clips over their waveforms: edges, names, seams, fades, and bars where somebody speaks. */
final class ClipPainter {

  /** Where a name stands if the line leaves it the room: under the marks of hot places. */
  private static final double UNDER_MARKS = 20;

  /** How far a name's letters reach under it, with some air, in pixels. */
  private static final double DESCENT = 5;

  /** How far the strokes over a clip without its file stay apart, in pixels. */
  private static final double HATCH = 14;

  private static final double LETTER_WIDTH = 5.4;

  /** How far labels of seams have to stay apart, in pixels. */
  private static final double LABEL_GAP = 14;

  private static final Font SMALL = Font.font("Atkinson Hyperlegible Next", 11);

  private final GraphicsContext g;
  private final Palette palette;
  private final LaneGeometry geometry;
  private final Project project;
  private final double width;
  private final double height;
  private final Color color;
  private final Set<Path> missing;

  /**
   * @param missing files that are not where they were
   */
  ClipPainter(
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
    this.color = palette.of(geometry.track().kind());
  }

  /** A clip's edges, name, seams and fade curves. */
  void clip(Clip clip, Selection selection, Target lit) {
    double left = geometry.axis().xOf(clip.startFrame());
    double right = geometry.axis().xOf(clip.endFrame());
    if (right < 0 || left > width) {
      return;
    }
    boolean isMissing =
        !missing.isEmpty()
            && project.media(clip.mediaId()).filter(m -> missing.contains(m.file())).isPresent();
    if (isMissing) {
      hatch(Math.max(0, left), Math.min(width, right));
    }
    boolean selected = selection.clipIds().contains(clip.id());
    boolean hovered = lit instanceof Target.OnClip c && c.clipId().equals(clip.id());
    double from = Math.max(-4, left);
    double to = Math.min(width + 4, right);
    if (selected) {
      g.setFill(palette.accent());
      Ruled.frame(g, from, 0, Math.max(2, to - from), height, 2);
    } else if (hovered || !geometry.track().kind().sounds()) {
      double l = Math.round(from) + 0.5;
      double r = Math.round(to) - 0.5;
      g.setFill(color.deriveColor(0, 1, 1, hovered ? 1 : 0.6));
      Ruled.vertical(g, l, 0, height, 1);
      Ruled.vertical(g, r, 0, height, 1);
      Ruled.horizontal(g, l, r, 0.5, 1);
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
      String name = project.media(clip.mediaId()).map(Media::title).orElse("");
      String title =
          isMissing
              ? text("clip.missing", name)
              : clip.fit().map(f -> text("clip.fitted." + f.mode().name(), name)).orElse(name);
      double inset = Math.max(0, geometry.fadeInX(clip) - from) + 13;
      double line = geometry.scale().yOf(0);
      double y = line > UNDER_MARKS + DESCENT ? UNDER_MARKS : line + 13;
      double room = to - from - inset - 14;
      g.fillText(shortened(title, room), Math.max(8, from + inset), y);
    }
  }

  /** Strokes that stand where a clip's sound would, were its file there. */
  private void hatch(double from, double to) {
    g.save();
    g.beginPath();
    g.rect(from, 1, Math.max(0, to - from), height - 2);
    g.clip();
    g.setStroke(palette.buried());
    g.setLineWidth(1);
    for (double x = Math.floor(from / HATCH) * HATCH - height; x < to; x += HATCH) {
      g.strokeLine(x, height, x + height, 0);
    }
    g.restore();
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
      g.setFill(palette.accent());
      Ruled.vertical(g, x, 2, height - 2, 3);
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
      String words = text("seam." + seam.heard().name().toLowerCase(Locale.ROOT));
      double wide = words.length() * 5.6 + 4;
      double room =
          index + 1 < clip.seams().size()
              ? geometry.axis().xOf(clip.startFrame() + clip.seams().get(index + 1).atFrame()) - x
              : Double.MAX_VALUE;
      if (room < wide + LABEL_GAP && !chosen && !hovered) {
        return;
      }
      double from = x + 5 + wide > width && x > 5 + wide ? x - 5 - wide : x + 5;
      g.setFill(palette.sunken().deriveColor(0, 1, 1, 0.85));
      Ruled.plate(g, from, height - 17, wide, 14);
      g.setFill(palette.ink());
      g.fillText(words, from + 3, height - 6);
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

  /** The handle of a clip's fade that a press would take hold of. */
  void fadeHandles(Clip clip, Target lit) {
    boolean in = lit instanceof Target.OnFadeIn f && f.clipId().equals(clip.id());
    boolean out = lit instanceof Target.OnFadeOut f && f.clipId().equals(clip.id());
    if (in) {
      handle(geometry.fadeInX(clip), 1);
    }
    if (out) {
      handle(geometry.fadeOutX(clip), -1);
    }
  }

  /** A small flag that leans into the clip. */
  private void handle(double x, int lean) {
    if (x < -10 || x > width + 10) {
      return;
    }
    double size = 10;
    g.setFill(palette.accent());
    g.fillPolygon(
        new double[] {x, x + lean * size, x}, new double[] {2, 2 + size * 0.6, 2 + size * 1.2}, 3);
  }

  /** Bars under a voice clip where somebody speaks. */
  void passages(Clip clip, Selection selection, Target lit) {
    Optional<Media> media = project.media(clip.mediaId()).filter(m -> m.speech().isPresent());
    if (media.isEmpty()) {
      return;
    }
    List<Span> speech = media.get().speech().orElseThrow();
    for (Passages.Passage p : Passages.in(geometry.track(), clip, media.get())) {
      double left = geometry.axis().xOf(p.span().startFrame());
      double right = geometry.axis().xOf(p.span().endFrame());
      if (right < 0 || left > width) {
        continue;
      }
      int index = speech.indexOf(p.inMedia());
      boolean chosen =
          selection instanceof Selection.OfPassage s
              && s.clipId().equals(clip.id())
              && s.index() == index;
      boolean hovered =
          lit instanceof Target.OnPassage o && o.clipId().equals(clip.id()) && o.index() == index;
      double thick = chosen || hovered ? LaneGeometry.PASSAGE - 2 : LaneGeometry.PASSAGE - 4;
      g.setFill(chosen || hovered ? palette.accent() : palette.ink());
      g.fillRect(left, height - thick, Math.max(2, right - left), thick);
      g.fillRect(left, height - LaneGeometry.PASSAGE, 2, LaneGeometry.PASSAGE);
      g.fillRect(right - 2, height - LaneGeometry.PASSAGE, 2, LaneGeometry.PASSAGE);
    }
  }
}

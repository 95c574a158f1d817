package hushrise.app.timeline;

import hushrise.app.look.Ruled;
import hushrise.core.fit.Sections.Section;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** The sections of the song in the selected clip, with a tick where each is heard to begin. */
final class SectionMarks {

  private static final Font SMALL = Font.font("Atkinson Hyperlegible Next", 11);
  private static final double LEAST_ROOM = 14;
  private static final double PLATE = 13;
  private static final double SEAM_WORDS = 20;

  private final GraphicsContext g;
  private final Viewport view;
  private final LaneGeometry geometry;

  SectionMarks(GraphicsContext g, Viewport view, LaneGeometry geometry) {
    this.g = g;
    this.view = view;
    this.geometry = geometry;
  }

  /** Draws the sections of each selected clip of music. */
  void paint() {
    if (geometry.track().kind() != TrackKind.MUSIC) {
      return;
    }
    for (Clip clip : geometry.track().clips()) {
      if (view.session().selection().clipIds().contains(clip.id())) {
        view.session()
            .shown()
            .media(clip.mediaId())
            .map(view::sections)
            .filter(all -> all.size() > 1)
            .ifPresent(all -> runs(clip, all));
      }
    }
  }

  /** The runs of a clip between its seams, each with the sections that lie in it. */
  private void runs(Clip clip, List<Section> sections) {
    double drawnTo = Double.NEGATIVE_INFINITY;
    for (int run = 0; run <= clip.seams().size(); run++) {
      long from = run == 0 ? 0 : clip.seams().get(run - 1).atFrame();
      long to = run == clip.seams().size() ? clip.lengthFrames() : clip.seams().get(run).atFrame();
      long shift = clip.mediaFrameAt(from) - from;
      for (Section section : sections) {
        long at = Math.max(from, section.startFrame() - shift);
        if (at < Math.min(to, section.endFrame() - shift)) {
          double x = geometry.axis().xOf(clip.startFrame() + at);
          if (x - drawnTo >= LEAST_ROOM && x > -LEAST_ROOM && x < g.getCanvas().getWidth()) {
            mark(x, section.letter());
            drawnTo = x;
          }
        }
      }
    }
  }

  /** Above the words of a seam, where nothing else stands. */
  private void mark(double x, String letter) {
    double foot = g.getCanvas().getHeight() - SEAM_WORDS;
    g.setFill(view.palette().sunken().deriveColor(0, 1, 1, 0.85));
    Ruled.plate(g, x, foot - PLATE, PLATE, PLATE);
    g.setFill(view.palette().ink());
    Ruled.vertical(g, x + 0.5, foot - PLATE, foot, 1);
    g.setFont(SMALL);
    g.setTextAlign(TextAlignment.LEFT);
    g.fillText(letter, x + 3, foot - 3);
  }
}

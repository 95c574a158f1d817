package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.listen.FilmMeasure;
import hushrise.app.listen.Hearing;
import hushrise.app.look.Palette;
import hushrise.app.look.Pixels;
import hushrise.app.session.Session;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.separation.Separation;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.scene.Cursor;
import javafx.scene.control.Tooltip;
import javafx.scene.image.ImageView;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;

/**
 * The loudness of the film along its length: the short-term one as a hill, the highest moments as
 * dots over it, and under it where the voice is tight (a thin line) or buried (a thick one). A
 * press goes to the place.
 */
final class LoudnessHistory extends Region {

  private static final double LOUDEST = -6;
  private static final double QUIETEST = -42;
  private static final int STRIP = 6;

  private final Session session;
  private final FilmMeasure measure;
  private final Hearing hearing;
  private final ObjectProperty<Palette> palette;
  private final ImageView shown = new ImageView();
  private final Rectangle playhead = new Rectangle(1.5, 0);
  private Optional<Pixels> drawn = Optional.empty();

  LoudnessHistory(
      Session session, FilmMeasure measure, Hearing hearing, ObjectProperty<Palette> palette) {
    this.session = session;
    this.measure = measure;
    this.hearing = hearing;
    this.palette = palette;
    setId("loudness-history");
    setMinHeight(34);
    setPrefHeight(48);
    setCursor(Cursor.HAND);
    setAccessibleText(text("history.accessible"));
    Tooltip.install(this, new Tooltip(text("history.tip")));
    playhead.getStyleClass().add("playhead");
    playhead.setMouseTransparent(true);
    getChildren().addAll(shown, playhead);
    setOnMousePressed(this::go);
    setOnMouseDragged(this::go);
    palette.addListener((p, was, now) -> redraw());
    hearing.nowProperty().addListener((p, was, now) -> redrawVoice());
  }

  private void go(MouseEvent e) {
    long length = session.shown().lengthFrames();
    session.seek(Math.round(Math.clamp(e.getX() / getWidth(), 0, 1) * length));
    e.consume();
  }

  @Override
  protected void layoutChildren() {
    int width = (int) getWidth();
    int height = (int) getHeight();
    boolean sized = drawn.filter(p -> p.width() == width && p.height() == height).isPresent();
    if (!sized && width > 0 && height > STRIP) {
      drawn = Optional.of(new Pixels(width, height));
      shown.setImage(drawn.get().image());
      playhead.setHeight(height);
      redraw();
      movePlayhead();
    }
  }

  private int width() {
    return (int) getWidth();
  }

  void movePlayhead() {
    long length = Math.max(1, session.shown().lengthFrames());
    playhead.setX(Math.round(getWidth() * session.playhead() / length));
    playhead.setVisible(session.shown().lengthFrames() > 0);
  }

  private double yOf(double lufs, double height) {
    return height * Math.clamp((LOUDEST - lufs) / (LOUDEST - QUIETEST), 0, 1);
  }

  void redraw() {
    drawn.ifPresent(
        pixels -> {
          pixels.setGround(palette.get().sunken());
          pixels.clear();
          measure.nowProperty().get().ifPresent(film -> hill(pixels, film));
          voice(pixels);
          pixels.publish();
        });
  }

  /** How the voice stands above the rest changes more often than the film's loudness is known. */
  private void redrawVoice() {
    drawn.ifPresent(
        pixels -> {
          voice(pixels);
          pixels.publish();
        });
  }

  private void hill(Pixels pixels, FilmLoudness film) {
    int foot = pixels.height() - STRIP;
    int hill = Pixels.premultiplied(palette.get().music(), 1);
    int dot = Pixels.premultiplied(palette.get().faintInk(), 1);
    for (int x = 0; x < pixels.width() && film.hops() > 0; x++) {
      double shortTerm = Double.NEGATIVE_INFINITY;
      double momentary = Double.NEGATIVE_INFINITY;
      int to = toHop(x, film);
      for (int hop = fromHop(x, film); hop < to; hop += step(x, film)) {
        shortTerm = Math.max(shortTerm, film.shortTermLufs(hop));
        momentary = Math.max(momentary, film.momentaryLufs(hop));
      }
      pixels.run(x, yOf(shortTerm, foot), foot, hill);
      double top = yOf(momentary, foot);
      pixels.run(x, top, top + 1, dot);
    }
  }

  private int fromHop(int x, FilmLoudness film) {
    return (int) ((long) x * film.hops() / Math.max(1, width()));
  }

  private int toHop(int x, FilmLoudness film) {
    return Math.min(Math.max(fromHop(x, film) + 1, fromHop(x + 1, film)), film.hops());
  }

  /** Of a long film a column stands for many moments: a few of them tell it. */
  private int step(int x, FilmLoudness film) {
    return Math.max(1, (toHop(x, film) - fromHop(x, film)) / 8);
  }

  private void voice(Pixels pixels) {
    int top = pixels.height() - STRIP;
    int ground = Pixels.premultiplied(palette.get().sunken(), 1);
    for (int y = top; y < pixels.height(); y++) {
      pixels.row(0, pixels.width(), y, ground);
    }
    Optional<Separation> separation = hearing.now().map(Hearing.Now::separation);
    Optional<FilmLoudness> film = measure.nowProperty().get();
    if (film.isEmpty() || separation.isEmpty()) {
      return;
    }
    for (int x = 0; x < pixels.width(); x++) {
      float lowest = Float.MAX_VALUE;
      int to = toHop(x, film.get());
      for (int hop = fromHop(x, film.get()); hop < to; hop += step(x, film.get())) {
        float lu = separation.get().at(hop);
        lowest = Float.isNaN(lu) ? lowest : Math.min(lowest, lu);
      }
      if (lowest < Float.MAX_VALUE) {
        mark(pixels, separation.get().stateOfMoment(lowest), x, top);
      }
    }
  }

  private void mark(Pixels pixels, Separation.State state, int x, int top) {
    Palette p = palette.get();
    switch (state) {
      case CLEAR -> pixels.run(x, top + 4, top + 5, Pixels.premultiplied(p.clear(), 1));
      case TIGHT -> pixels.run(x, top + 2, top + 5, Pixels.premultiplied(p.tight(), 1));
      case BURIED -> pixels.run(x, top, top + 6, Pixels.premultiplied(p.buried(), 1));
    }
  }
}

package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.listen.FilmMeasure;
import hushrise.app.listen.Hearing;
import hushrise.app.look.Density;
import hushrise.app.look.Palette;
import hushrise.app.look.Pixels;
import hushrise.app.session.Session;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.separation.Separation;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.value.ObservableValue;
import javafx.scene.Cursor;
import javafx.scene.control.Tooltip;
import javafx.scene.image.ImageView;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
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
  private final ObservableValue<Double> density = Density.of(this);
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
    setMaxHeight(140);
    setCursor(Cursor.HAND);
    setAccessibleText(text("history.accessible"));
    Tooltip.install(this, new Tooltip(text("history.tip")));
    playhead.getStyleClass().add("playhead");
    playhead.setMouseTransparent(true);
    getChildren().addAll(shown, playhead);
    setOnMousePressed(this::go);
    setOnMouseDragged(this::go);
    palette.addListener((p, was, now) -> redraw());
    density.addListener((p, was, now) -> requestLayout());
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
    double dense = density.getValue();
    boolean sized = drawn.filter(p -> p.fits(width, height, dense)).isPresent();
    if (!sized && width > 0 && height > STRIP) {
      drawn = Optional.of(new Pixels(width, height, dense));
      drawn.get().showIn(shown);
      playhead.setHeight(height);
      redraw();
      movePlayhead();
    }
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
    int foot = stripTop(pixels);
    int hill = Pixels.premultiplied(palette.get().music(), 1);
    int dot = Pixels.premultiplied(palette.get().faintInk(), 1);
    int width = pixels.width();
    for (int x = 0; x < width && film.hops() > 0; x++) {
      double shortTerm = Double.NEGATIVE_INFINITY;
      double momentary = Double.NEGATIVE_INFINITY;
      int to = toHop(x, width, film);
      for (int hop = fromHop(x, width, film); hop < to; hop += step(x, width, film)) {
        shortTerm = Math.max(shortTerm, film.shortTermLufs(hop));
        momentary = Math.max(momentary, film.momentaryLufs(hop));
      }
      pixels.run(x, yOf(shortTerm, foot), foot, hill);
      double top = yOf(momentary, foot);
      pixels.run(x, top, top + pixels.thin(), dot);
    }
  }

  /** The y of the strip that tells of the voice. */
  private static int stripTop(Pixels pixels) {
    return pixels.height() - (int) Math.round(pixels.density() * STRIP);
  }

  private static int fromHop(int x, int width, FilmLoudness film) {
    return (int) ((long) x * film.hops() / width);
  }

  private static int toHop(int x, int width, FilmLoudness film) {
    int next = fromHop(x + 1, width, film);
    return Math.min(Math.max(fromHop(x, width, film) + 1, next), film.hops());
  }

  /** Of a long film a column stands for many moments: a few of them tell it. */
  private static int step(int x, int width, FilmLoudness film) {
    return Math.max(1, (toHop(x, width, film) - fromHop(x, width, film)) / 8);
  }

  private void voice(Pixels pixels) {
    int width = pixels.width();
    int ground = Pixels.premultiplied(palette.get().sunken(), 1);
    pixels.block(0, stripTop(pixels), width, pixels.height(), ground);
    Optional<Separation> separation = hearing.now().map(Hearing.Now::separation);
    Optional<FilmLoudness> film = measure.nowProperty().get();
    if (film.isEmpty() || separation.isEmpty()) {
      return;
    }
    for (int x = 0; x < width; x++) {
      float lowest = Float.MAX_VALUE;
      int to = toHop(x, width, film.get());
      for (int hop = fromHop(x, width, film.get()); hop < to; hop += step(x, width, film.get())) {
        float lu = separation.get().at(hop);
        lowest = Float.isNaN(lu) ? lowest : Math.min(lowest, lu);
      }
      if (lowest < Float.MAX_VALUE) {
        mark(pixels, separation.get().stateOfMoment(lowest), x);
      }
    }
  }

  private void mark(Pixels pixels, Separation.State state, int x) {
    Palette p = palette.get();
    switch (state) {
      case CLEAR -> mark(pixels, x, 4, 5, p.clear());
      case TIGHT -> mark(pixels, x, 2, 5, p.tight());
      case BURIED -> mark(pixels, x, 0, STRIP, p.buried());
    }
  }

  private static void mark(Pixels pixels, int x, int from, int to, Color color) {
    double top = stripTop(pixels);
    double dense = pixels.density();
    pixels.run(x, top + dense * from, top + dense * to, Pixels.premultiplied(color, 1));
  }
}

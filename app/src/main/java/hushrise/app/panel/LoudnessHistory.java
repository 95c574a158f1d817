package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.listen.FilmMeasure;
import hushrise.app.listen.Hearing;
import hushrise.app.look.Palette;
import hushrise.app.session.Session;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.separation.Separation;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Tooltip;
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
  private static final double STRIP = 6;

  private final Session session;
  private final FilmMeasure measure;
  private final Hearing hearing;
  private final ObjectProperty<Palette> palette;
  private final Canvas canvas = new Canvas();
  private final Rectangle playhead = new Rectangle(1.5, 0);

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
    getChildren().addAll(canvas, playhead);
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
    if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
      canvas.setWidth(getWidth());
      canvas.setHeight(getHeight());
      playhead.setHeight(getHeight());
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
    double w = getWidth();
    double h = getHeight() - STRIP;
    Palette p = palette.get();
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.setFill(p.sunken());
    g.fillRect(0, 0, w, getHeight());
    Optional<FilmLoudness> film = measure.nowProperty().get();
    if (film.isEmpty() || film.get().hops() == 0) {
      return;
    }
    for (int x = 0; x < w; x++) {
      double shortTerm = Double.NEGATIVE_INFINITY;
      double momentary = Double.NEGATIVE_INFINITY;
      int to = toHop(x, film.get());
      for (int hop = fromHop(x, film.get()); hop < to; hop += step(x, film.get())) {
        shortTerm = Math.max(shortTerm, film.get().shortTermLufs(hop));
        momentary = Math.max(momentary, film.get().momentaryLufs(hop));
      }
      double y = yOf(shortTerm, h);
      g.setFill(p.music());
      g.fillRect(x, y, 1, h - y);
      g.setFill(p.faintInk());
      g.fillRect(x, yOf(momentary, h), 1, 1);
    }
    redrawVoice();
  }

  private int fromHop(int x, FilmLoudness film) {
    return (int) (x * film.hops() / getWidth());
  }

  private int toHop(int x, FilmLoudness film) {
    return Math.min(Math.max(fromHop(x, film) + 1, fromHop(x + 1, film)), film.hops());
  }

  /** Of a long film a column stands for many moments: a few of them tell it. */
  private int step(int x, FilmLoudness film) {
    return Math.max(1, (toHop(x, film) - fromHop(x, film)) / 8);
  }

  /** How the voice stands above the rest changes more often than the film's loudness is known. */
  private void redrawVoice() {
    double h = getHeight() - STRIP;
    Palette p = palette.get();
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.setFill(p.sunken());
    g.fillRect(0, h, getWidth(), STRIP);
    Optional<Separation> separation = hearing.now().map(Hearing.Now::separation);
    Optional<FilmLoudness> film = measure.nowProperty().get();
    if (film.isEmpty() || separation.isEmpty()) {
      return;
    }
    for (int x = 0; x < getWidth(); x++) {
      float lowest = Float.MAX_VALUE;
      int to = toHop(x, film.get());
      for (int hop = fromHop(x, film.get()); hop < to; hop += step(x, film.get())) {
        float lu = separation.get().at(hop);
        lowest = Float.isNaN(lu) ? lowest : Math.min(lowest, lu);
      }
      if (lowest < Float.MAX_VALUE) {
        mark(g, p, separation.get().stateOfMoment(lowest), x, h);
      }
    }
  }

  private static void mark(
      GraphicsContext g, Palette p, Separation.State state, double x, double h) {
    switch (state) {
      case CLEAR -> {
        g.setFill(p.clear());
        g.fillRect(x, h + 4, 1, 1);
      }
      case TIGHT -> {
        g.setFill(p.tight());
        g.fillRect(x, h + 2, 1, 3);
      }
      case BURIED -> {
        g.setFill(p.buried());
        g.fillRect(x, h, 1, 6);
      }
    }
  }
}

package hushrise.app.widget;

import hushrise.app.look.Palette;
import hushrise.app.look.Ruled;
import hushrise.app.play.Meters;
import hushrise.core.Decibels;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelText;
import java.util.OptionalLong;
import java.util.function.DoubleConsumer;
import javafx.beans.value.ObservableValue;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/**
 * A fader and the meter of what it sets, on one scale of dB that lies along it: two bars, left and
 * right, and across them the handle. What is hot is told by its place and by bars that widen there,
 * what is over by a mark at the end, which leads to the place when it is pressed.
 *
 * <pre>
 *    ▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂┃▂▂▂▂▄▄▄   ◣
 *    ▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂▂┃▂▂▂▄▄     !
 *     48       24     12  6  0    +12
 * </pre>
 */
public final class Fader extends Region {

  private static final double END = 7;
  private static final double MARK = 13;
  private static final double CURVE = 1.5;
  private static final double FINE = 0.12;
  private static final double LABELLED = 27;
  private static final int[] MARKS = {-48, -24, -12, -6, 0, 6};
  private static final Font FONT = Font.font("Atkinson Hyperlegible Next", 9);

  private final ObservableValue<Palette> palette;
  private final Canvas canvas = new Canvas();
  private Meters.Meter meter = new Meters.Meter();
  private DoubleConsumer onMove = db -> {};
  private Runnable onRelease = () -> {};
  private Runnable onType = () -> {};
  private DoubleConsumer onTurn = by -> {};
  private java.util.function.LongConsumer onOver = frame -> {};
  private boolean turns;
  private boolean riding;
  private double hotDb = -6;
  private double shownDb;
  private double pressedX = Double.NaN;
  private double pressedDb;
  private boolean moved;

  /**
   * @param accessible what the level is of
   */
  public Fader(String accessible, ObservableValue<Palette> palette) {
    this.palette = palette;
    getChildren().add(canvas);
    getStyleClass().add("fader");
    setAccessibleRole(AccessibleRole.SLIDER);
    setAccessibleText(accessible);
    setMinSize(40, 14);
    setPrefHeight(30);
    canvas.setMouseTransparent(true);
    setOnMouseMoved(e -> setCursor(isOnMark(e) ? Cursor.HAND : Cursor.H_RESIZE));
    setOnMousePressed(this::press);
    setOnMouseDragged(this::pull);
    setOnMouseReleased(e -> release());
    addEventHandler(ScrollEvent.SCROLL, this::turn);
    // Colours outlast faders, and are not to keep those that are gone.
    palette.when(sceneProperty().map(s -> true).orElse(false)).addListener((p, was, now) -> draw());
  }

  /** Sets what moving the handle does; {@code released} when it is let go after that. */
  public void onMove(DoubleConsumer move, Runnable released) {
    onMove = move;
    onRelease = released;
  }

  /** Sets what a double-click does. */
  public void onType(Runnable type) {
    onType = type;
  }

  /** Sets what the wheel does while {@link #setTurns} allows it; takes steps in dB. */
  public void onTurn(DoubleConsumer turn) {
    onTurn = turn;
  }

  /** Sets what a press on the mark of what is over does; takes the place's frame. */
  public void onOver(java.util.function.LongConsumer over) {
    onOver = over;
  }

  public void setMeter(Meters.Meter of) {
    meter = of;
    draw();
  }

  public void setTurns(boolean allowed) {
    turns = allowed;
  }

  /** Shows that the handle is a hand's, which is written as it moves. */
  public void setRiding(boolean is) {
    if (riding != is) {
      riding = is;
      draw();
    }
  }

  /** Sets from which level on a meter is hot, in dBFS. */
  public void setHotDb(double db) {
    if (hotDb != db) {
      hotDb = db;
      draw();
    }
  }

  /** Shows a level. */
  public void show(double db) {
    if (shownDb != db) {
      shownDb = db;
      draw();
    }
  }

  public double shownDb() {
    return shownDb;
  }

  /** Whether somebody holds the handle. */
  public boolean isHeld() {
    return !Double.isNaN(pressedX);
  }

  /** Lets go without a word. */
  public void cancel() {
    pressedX = Double.NaN;
    draw();
  }

  @Override
  protected void layoutChildren() {
    if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
      canvas.setWidth(getWidth());
      canvas.setHeight(getHeight());
      draw();
    }
  }

  private double span() {
    return Math.max(1, getWidth() - END - MARK);
  }

  /** Where a level lies across; low levels lie closer together. */
  public double xOf(double db) {
    double part =
        (Math.clamp(db, Decibels.OFF_DB, Keyframe.MAX_DB) - Decibels.OFF_DB)
            / (Keyframe.MAX_DB - Decibels.OFF_DB);
    return END + span() * Math.pow(part, CURVE);
  }

  private double dbAt(double x) {
    double part = Math.clamp((x - END) / span(), 0, 1);
    return Decibels.OFF_DB + (Keyframe.MAX_DB - Decibels.OFF_DB) * Math.pow(part, 1 / CURVE);
  }

  private boolean isOnMark(MouseEvent e) {
    return meter.over().isPresent() && e.getX() > getWidth() - MARK;
  }

  private void press(MouseEvent e) {
    if (e.getButton() != MouseButton.PRIMARY) {
      return;
    }
    e.consume();
    OptionalLong over = meter.over();
    if (over.isPresent() && isOnMark(e)) {
      meter.clear();
      onOver.accept(over.getAsLong());
      draw();
    } else if (e.getClickCount() == 2) {
      onType.run();
    } else {
      pressedX = e.getX();
      pressedDb = shownDb;
      moved = false;
      if (riding) {
        onMove.accept(shownDb);
      }
      draw();
    }
  }

  private void pull(MouseEvent e) {
    if (Double.isNaN(pressedX)) {
      return;
    }
    e.consume();
    double by = (e.getX() - pressedX) * (e.isShiftDown() ? FINE : 1);
    if (moved || Math.abs(by) >= 2 || e.isShiftDown()) {
      moved = true;
      double db = dbAt(xOf(pressedDb) + by);
      onMove.accept(Math.round(db * 10) / 10.0);
    }
  }

  private void release() {
    if (!Double.isNaN(pressedX)) {
      pressedX = Double.NaN;
      if (moved || riding) {
        onRelease.run();
      }
      draw();
    }
  }

  private void turn(ScrollEvent e) {
    double by = e.getDeltaY() == 0 ? e.getDeltaX() : e.getDeltaY();
    if (turns && by != 0) {
      onTurn.accept(Math.signum(by) * (e.isShiftDown() ? 0.1 : 1));
      e.consume();
    }
  }

  /** Draws it anew, as its meter has moved. */
  public void draw() {
    double w = getWidth();
    double h = getHeight();
    GraphicsContext g = canvas.getGraphicsContext2D();
    Palette p = palette.getValue();
    g.clearRect(0, 0, w, h);
    boolean labelled = h >= LABELLED;
    double room = labelled ? h - 11 : h - 4;
    double bar = Math.max(3, Math.min(6, (room - 5) / 2));
    double top = 2;
    double zero = xOf(0);
    double hot = xOf(hotDb);
    double right = w - MARK;
    for (int c = 0; c < 2; c++) {
      double y = top + c * (bar + 2);
      g.setFill(p.sunken());
      g.fillRect(END, y, right - END, bar);
      g.setFill(p.edge());
      g.fillRect(hot, y, 1, bar);
      level(g, meter.db(c), y, bar, hot, zero, p);
      double held = meter.heldDb(c);
      if (held > Meters.LOWEST_DB) {
        g.setFill(held > 0 ? p.buried() : p.ink());
        g.fillRect(xOf(held) - 1, y - (held > hotDb ? 1 : 0), 2, bar + (held > hotDb ? 2 : 0));
      }
    }
    scale(g, p, top + 2 * bar + 3, labelled, hot);
    overMark(g, p, right, top, 2 * bar + 2);
    handle(g, p, 2 * bar + 6);
    if (isHeld()) {
      value(g, p, h);
    }
  }

  /** A bar: plain while safe, wider and striped where hot, full where over. */
  private void level(
      GraphicsContext g, double db, double y, double bar, double hot, double zero, Palette p) {
    double x = xOf(db);
    if (db <= Meters.LOWEST_DB) {
      return;
    }
    g.setFill(p.clear());
    g.fillRect(END, y, Math.min(x, hot) - END, bar);
    if (x > hot) {
      g.setFill(p.tight());
      for (double at = hot + 1; at < Math.min(x, zero); at += 3) {
        g.fillRect(at, y - 1, Math.min(2, Math.min(x, zero) - at), bar + 2);
      }
    }
    if (x > zero) {
      g.setFill(p.buried());
      g.fillRect(zero, y - 1, x - zero, bar + 2);
    }
  }

  private void scale(GraphicsContext g, Palette p, double y, boolean labelled, double hot) {
    g.setFont(FONT);
    g.setTextAlign(TextAlignment.CENTER);
    double last = -100;
    for (int db : MARKS) {
      double x = xOf(db);
      g.setFill(p.faintInk());
      g.fillRect(Math.round(x), y - 1, 1, db == 0 ? 4 : 3);
      if (labelled && x - last > 17 && x < getWidth() - 6) {
        g.fillText(db > 0 ? "+" + db : String.valueOf(Math.abs(db)), x, y + 11);
        last = x;
      }
    }
  }

  private void overMark(GraphicsContext g, Palette p, double x, double y, double height) {
    if (meter.over().isEmpty()) {
      return;
    }
    g.setFill(p.buried());
    g.fillPolygon(
        new double[] {x + 2, x + MARK - 1, x + MARK - 1},
        new double[] {y + height, y + height, y - 1},
        3);
  }

  private void handle(GraphicsContext g, Palette p, double height) {
    double x = Math.round(xOf(shownDb));
    double edge = isHeld() ? 2 : 1;
    g.setFill(p.ink());
    Ruled.plate(g, x - 4, 0, 8, height);
    g.setFill(riding ? p.accent() : p.surface());
    g.fillRect(x - 4 + edge, edge, 8 - 2 * edge, Math.rint(height) - 2 * edge);
    g.setFill(riding ? p.onAccent() : p.ink());
    g.fillRect(x - 1, 3, 2, Math.rint(height) - 6);
  }

  private void value(GraphicsContext g, Palette p, double h) {
    String words = LevelText.format(shownDb);
    boolean left = xOf(shownDb) > getWidth() / 2;
    double x = left ? xOf(shownDb) - 10 : xOf(shownDb) + 10;
    g.setFont(Font.font(FONT.getFamily(), 11));
    double width = words.length() * 6 + 6;
    g.setFill(p.surface());
    g.fillRect(left ? x - width : x - 2, 0, width, 14);
    g.setFill(p.ink());
    g.setTextAlign(left ? TextAlignment.RIGHT : TextAlignment.LEFT);
    g.fillText(words, x, 11);
  }
}

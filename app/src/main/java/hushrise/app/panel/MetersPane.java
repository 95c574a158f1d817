package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.look.Palette;
import hushrise.app.play.Transport;
import hushrise.app.session.Session;
import hushrise.app.widget.LevelField;
import hushrise.core.Decibels;
import hushrise.core.edit.LevelEdits;
import javafx.animation.AnimationTimer;
import javafx.beans.property.ObjectProperty;
import javafx.geometry.Pos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/**
 * The level of the mix while it plays, left and right, with the highest peak kept; and the master.
 */
public final class MetersPane extends VBox {

  private static final double WIDTH = 92;
  private static final double HEIGHT = 92;
  private static final double LOWEST_DB = -48;
  private static final double HOT_DB = -1;
  private static final double FALL_DB_PER_SECOND = 24;
  private static final Font FONT = Font.font("Atkinson Hyperlegible Next", 10);

  private final Transport transport;
  private final ObjectProperty<Palette> palette;
  private final Canvas canvas = new Canvas(WIDTH, HEIGHT);
  private final Label highest = new Label();
  private final double[] shownDb = {LOWEST_DB, LOWEST_DB};
  private double highestDb = Double.NEGATIVE_INFINITY;
  private long lastNanos;
  private final AnimationTimer timer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          step(now);
        }
      };

  public MetersPane(Session session, Transport transport, ObjectProperty<Palette> palette) {
    super(6);
    this.transport = transport;
    this.palette = palette;
    setId("meters");
    setAlignment(Pos.TOP_CENTER);
    getStyleClass().add("pane");
    setAccessibleText(text("meters.accessible"));
    Label title = new Label(text("meters.title"));
    title.getStyleClass().add("pane-title");
    highest.getStyleClass().add("number");
    LevelField master =
        new LevelField(
            text("meters.master"),
            db -> session.commit(text("edit.master"), p -> LevelEdits.setMaster(p, db)));
    master.setId("level-master");
    session.shownProperty().addListener((p, was, now) -> master.show(now.masterDb()));
    master.show(session.shown().masterDb());
    getChildren().addAll(title, canvas, highest, master);
    transport
        .playingProperty()
        .addListener(
            (p, was, now) -> {
              if (now) {
                highestDb = Double.NEGATIVE_INFINITY;
                lastNanos = System.nanoTime();
                timer.start();
              }
            });
    palette.addListener((p, was, now) -> draw());
    draw();
  }

  private void step(long now) {
    double fall = (now - lastNanos) / 1e9 * FALL_DB_PER_SECOND;
    lastNanos = now;
    double left = Decibels.ofFactor(transport.player().takePeakLeft());
    double right = Decibels.ofFactor(transport.player().takePeakRight());
    shownDb[0] = Math.max(Math.max(left, LOWEST_DB), shownDb[0] - fall);
    shownDb[1] = Math.max(Math.max(right, LOWEST_DB), shownDb[1] - fall);
    highestDb = Math.max(highestDb, Math.max(left, right));
    draw();
    if (!transport.playingProperty().get() && Math.max(shownDb[0], shownDb[1]) <= LOWEST_DB) {
      timer.stop();
    }
  }

  private static double yOf(double db) {
    return 4 + (HEIGHT - 8) * Math.clamp(db / LOWEST_DB, 0, 1);
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.clearRect(0, 0, WIDTH, HEIGHT);
    for (int i = 0; i < 2; i++) {
      double x = 10 + i * 22;
      g.setFill(palette.get().sunken());
      g.fillRoundRect(x, 4, 16, HEIGHT - 8, 4, 4);
      Color color = shownDb[i] > HOT_DB ? palette.get().buried() : palette.get().clear();
      g.setFill(color);
      double y = yOf(shownDb[i]);
      g.fillRoundRect(x, y, 16, HEIGHT - 4 - y, 4, 4);
      g.setStroke(palette.get().edge());
      g.strokeRoundRect(x + 0.5, 4.5, 15, HEIGHT - 9, 4, 4);
    }
    g.setFont(FONT);
    g.setFill(palette.get().faintInk());
    g.setTextAlign(TextAlignment.LEFT);
    for (int db = 0; db >= LOWEST_DB; db -= 12) {
      g.fillText(String.valueOf(db).replace('-', '\u2212'), 58, yOf(db) + (db == 0 ? 7 : 3.5));
    }
    highest.setText(
        Double.isFinite(highestDb)
            ? text("meters.highest", "%.1f".formatted(highestDb).replace('-', '\u2212'))
            : text("meters.quiet"));
  }
}

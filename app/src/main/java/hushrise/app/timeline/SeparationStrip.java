package hushrise.app.timeline;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.listen.Hearing;
import hushrise.app.look.Density;
import hushrise.app.look.Pixels;
import hushrise.core.project.Project;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.separation.Separation;
import java.util.Locale;
import java.util.Optional;
import javafx.beans.value.ObservableValue;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.image.ImageView;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * How far the voice stands above everything else, along the time in view. A clear voice is a hill
 * as high as it stands out; a tight one a hill of stripes; where it is buried a hatched block hangs
 * from the top. The head tells the number at the playhead and goes to the worst passage.
 */
final class SeparationStrip extends HBox {

  static final double HEIGHT = 40;

  private static final double HIGHEST_LU = 20;

  private final Viewport view;
  private final Label figure = new Label();
  private final Button worst = new Button();
  private final ImageView shown = new ImageView();
  private final ObservableValue<Double> density = Density.of(this);
  private Optional<Pixels> drawn = Optional.empty();

  SeparationStrip(Viewport view) {
    this.view = view;
    setId("separation");
    getStyleClass().add("separation");
    setMinHeight(HEIGHT);
    setMaxHeight(HEIGHT);
    Label title = new Label(text("separation.title"));
    title.getStyleClass().add("track-name");
    figure.setId("separation-figure");
    figure.getStyleClass().add("number");
    Region space = new Region();
    HBox.setHgrow(space, Priority.ALWAYS);
    HBox first = new HBox(6, title, space, figure);
    first.setAlignment(Pos.CENTER_LEFT);
    worst.setId("separation-worst");
    worst.getStyleClass().add("worst");
    worst.setFocusTraversable(true);
    worst.setTooltip(new Tooltip(text("separation.worst.tip")));
    VBox head = new VBox(0, first, worst);
    head.getStyleClass().add("separation-head");
    head.minWidthProperty().bind(view.headWidthProperty());
    head.maxWidthProperty().bind(view.headWidthProperty());
    javafx.scene.layout.StackPane lane = new javafx.scene.layout.StackPane(shown);
    lane.setAlignment(Pos.TOP_LEFT);
    lane.setMinWidth(0);
    HBox.setHgrow(lane, Priority.ALWAYS);
    lane.setOnMousePressed(e -> view.session().seek(view.axis().frameAt(e.getX())));
    lane.setOnMouseMoved(this::point);
    getChildren().addAll(head, lane);
    setAccessibleText(text("separation.accessible"));
  }

  private Optional<Separation> separation() {
    return view.hearing().now().map(Hearing.Now::separation);
  }

  private void point(MouseEvent e) {
    float lu = valueAt(view.axis().frameAt(e.getX()));
    view.hint(
        Float.isNaN(lu)
            ? text("hint.separation.silent")
            : text("hint.separation", number(lu), state(lu)));
  }

  private float valueAt(long frame) {
    Project project = view.session().shown();
    return separation()
        .map(s -> s.at((int) (frame * Separation.PER_SECOND / project.sampleRate())))
        .orElse(Float.NaN);
  }

  private static String number(double lu) {
    return Double.isFinite(lu) ? figure("%.1f LU", lu) : text("passages.alone");
  }

  private String state(float lu) {
    Separation.State state = separation().orElseThrow().stateOfMoment(lu);
    return text("state." + state.name().toLowerCase(Locale.ROOT));
  }

  /** Tells the number at the playhead. */
  void playheadMoved() {
    float lu = valueAt(view.session().playhead());
    figure.setText(Float.isNaN(lu) ? "\u2013" : number(lu));
  }

  /** Draws what is in view, and tells the worst passage. */
  void redraw(double wide) {
    resize((int) wide);
    Optional<Separation> known = separation();
    drawn.ifPresent(
        pixels -> {
          pixels.setGround(view.palette().sunken());
          pixels.clear();
          known.ifPresent(s -> draw(s, pixels));
          pixels.publish();
        });
    Optional<PassageLoudness> least =
        known.flatMap(Separation::worst).filter(p -> Double.isFinite(p.separationLu()));
    worst.setVisible(least.isPresent());
    least.ifPresent(
        p -> {
          worst.setText(text("separation.worst", figure("%.1f", p.separationLu())));
          worst.setOnAction(
              e -> {
                view.session().seek(p.passage().startFrame());
                view.reveal(p.passage().startFrame());
              });
        });
    playheadMoved();
  }

  private void resize(int wide) {
    double dense = density.getValue();
    if (wide >= 1 && drawn.filter(p -> p.fits(wide, HEIGHT, dense)).isEmpty()) {
      drawn = Optional.of(new Pixels(wide, HEIGHT, dense));
      drawn.get().showIn(shown);
    }
  }

  private void draw(Separation separation, Pixels pixels) {
    int rate = view.session().shown().sampleRate();
    int clear = Pixels.premultiplied(view.palette().clear(), 1);
    int tight = Pixels.premultiplied(view.palette().tight(), 1);
    int buried = Pixels.premultiplied(view.palette().buried(), 1);
    int edge = Pixels.premultiplied(view.palette().faintInk(), 1);
    double dense = pixels.density();
    int wanted = (int) Math.round(dense * yOf(separation.wantedLu()));
    for (int x = 0; x < pixels.width(); x++) {
      double from = (double) view.axis().frameAt(x / dense) * Separation.PER_SECOND / rate;
      double to = (double) view.axis().frameAt((x + 1) / dense) * Separation.PER_SECOND / rate;
      float least = Float.NaN;
      for (int i = (int) Math.floor(from); i <= (int) Math.floor(to); i++) {
        float lu = separation.at(i);
        least = Float.isNaN(least) || lu < least ? lu : least;
      }
      if (!Float.isNaN(least)) {
        switch (separation.stateOfMoment(least)) {
          case CLEAR -> hill(pixels, x, yOf(least), clear, false);
          case TIGHT -> hill(pixels, x, yOf(least), tight, true);
          case BURIED -> pit(pixels, x, buried);
        }
        if (x / dense % 6 < 3) {
          pixels.block(x, wanted, x + 1, wanted + pixels.thin(), edge);
        }
      }
    }
  }

  /** The y of a separation, in the window's units. */
  private static double yOf(double lu) {
    return (HEIGHT - 3) * (1 - Math.clamp(lu / HIGHEST_LU, 0, 1)) + 1;
  }

  private static void hill(Pixels pixels, int x, double top, int color, boolean striped) {
    double dense = pixels.density();
    for (int y = (int) Math.round(dense * top); y < pixels.height(); y++) {
      if (!striped || y / dense % 4 < 2) {
        pixels.point(x, y, color);
      }
    }
  }

  /** A hatched block that hangs from the top. */
  private static void pit(Pixels pixels, int x, int color) {
    double dense = pixels.density();
    for (int y = 0; y < pixels.height() * 3 / 4; y++) {
      if ((x + y) / dense % 5 < 3) {
        pixels.point(x, y, color);
      }
    }
  }
}

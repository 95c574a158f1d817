package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Background;
import hushrise.app.Session;
import hushrise.app.look.Palette;
import hushrise.core.hush.PassageLoudness;
import hushrise.core.hush.Passages;
import hushrise.core.make.FilmPlan;
import hushrise.core.project.Project;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import hushrise.core.time.Timecode;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.animation.PauseTransition;
import javafx.beans.property.ObjectProperty;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Shape;
import javafx.util.Duration;

/**
 * How far the voice stands above everything under it, passage by passage, measured anew after each
 * edit. Told by shape as well as hue: a peak for clear, a bar for tight, a pit for buried.
 */
public final class PassagesPane extends VBox {

  private static final double TIGHT_LU = 3;

  private final Session session;
  private final SoundLibrary library;
  private final Background background;
  private final ObjectProperty<Palette> palette;
  private final VBox list = new VBox(2);
  private final PauseTransition settle = new PauseTransition(Duration.millis(120));
  private List<PassageLoudness> measured = List.of();
  private Project measuredProject;
  private final AtomicBoolean stale = new AtomicBoolean();
  private boolean busy;

  public PassagesPane(
      Session session,
      SoundLibrary library,
      Background background,
      ObjectProperty<Palette> palette) {
    super(8);
    this.session = session;
    this.library = library;
    this.background = background;
    this.palette = palette;
    setId("passages");
    getStyleClass().add("pane");
    Label title = new Label(text("passages.title"));
    title.getStyleClass().add("pane-title");
    ScrollPane scroll = new ScrollPane(list);
    scroll.setFitToWidth(true);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(title, scroll);
    settle.setOnFinished(e -> measure());
    session
        .projectProperty()
        .addListener(
            (p, was, now) -> {
              stale.set(true);
              settle.playFromStart();
            });
    palette.addListener((p, was, now) -> show());
    show();
  }

  private void measure() {
    if (busy || session.isPreviewing()) {
      settle.playFromStart();
      return;
    }
    Project project = session.project();
    if (project.equals(measuredProject)) {
      return;
    }
    busy = true;
    stale.set(false);
    background.run(
        () -> measured(project),
        result -> {
          measured = result;
          measuredProject = project;
          busy = false;
          show();
        },
        () -> busy = false);
  }

  /** Measures one passage after another; ends early when the project has changed meanwhile. */
  private List<PassageLoudness> measured(Project project) {
    List<PassageLoudness> result = new ArrayList<>();
    for (Span passage : Passages.of(project)) {
      if (stale.get()) {
        throw new CancellationException();
      }
      result.addAll(PassageLoudness.measure(project, library, List.of(passage)));
    }
    return result;
  }

  private void show() {
    list.getChildren().clear();
    if (measured.isEmpty()) {
      Label none = new Label(text("passages.none"));
      none.setWrapText(true);
      none.getStyleClass().add("faint");
      list.getChildren().add(none);
    }
    measured.forEach(p -> list.getChildren().add(line(p)));
  }

  private Button line(PassageLoudness p) {
    Project project = session.project();
    double lu = p.separationLu();
    Label time =
        new Label(
            Timecode.format(p.passage().startFrame(), project.pictureRate(), project.sampleRate()));
    time.getStyleClass().add("number");
    Label figure =
        new Label(Double.isFinite(lu) ? "%.1f LU".formatted(lu) : text("passages.alone"));
    figure.getStyleClass().add("number");
    Label state = new Label(text("state." + state(lu)));
    state.getStyleClass().add("faint");
    Region space = new Region();
    HBox.setHgrow(space, Priority.ALWAYS);
    HBox row = new HBox(8, mark(lu), time, space, figure, state);
    row.setAlignment(Pos.CENTER_LEFT);
    state.setMinWidth(46);
    Button button = new Button();
    button.setGraphic(row);
    button.setMaxWidth(Double.MAX_VALUE);
    row.prefWidthProperty().bind(button.widthProperty().subtract(16));
    button.getStyleClass().add("passage");
    button.setAccessibleText(
        text("passages.accessible", time.getText(), figure.getText(), state.getText()));
    button.setOnAction(e -> session.seek(p.passage().startFrame()));
    return button;
  }

  private static String state(double lu) {
    if (lu >= FilmPlan.SEPARATION_LU - 0.3) {
      return "clear";
    }
    return lu >= FilmPlan.SEPARATION_LU - TIGHT_LU ? "tight" : "buried";
  }

  private Shape mark(double lu) {
    Shape shape;
    Color color;
    switch (state(lu)) {
      case "clear" -> {
        shape = new Polygon(0, 10, 6, 0, 12, 10);
        color = palette.get().clear();
      }
      case "tight" -> {
        shape = new Polygon(0, 3, 12, 3, 12, 7, 0, 7);
        color = palette.get().tight();
      }
      default -> {
        shape = new Polygon(0, 0, 12, 0, 6, 10);
        color = palette.get().buried();
      }
    }
    shape.setFill(color);
    return shape;
  }
}

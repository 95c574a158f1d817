package hushrise.app.panel;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.look.Palette;
import hushrise.app.session.Session;
import hushrise.app.widget.RowList;
import hushrise.core.project.Project;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.separation.Separation;
import hushrise.core.time.Timecode;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.beans.property.ObjectProperty;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Shape;

/**
 * How far the voice stands above everything under it, passage by passage. Told by shape as well as
 * hue: a peak for clear, a bar for tight, a pit for buried.
 */
final class PassageList {

  /** The width of a row in pixels up to which its mark alone tells the state. */
  private static final double NARROW = 260;

  private final Session session;
  private final ObjectProperty<Palette> palette;
  private final RowList<Line> list = new RowList<>(this::line);
  private final Label none = new Label();

  /** A passage as it is told; another palette draws it anew. */
  private record Line(PassageLoudness passage, Separation.State state, Palette palette) {}

  PassageList(Session session, ObjectProperty<Palette> palette) {
    this.session = session;
    this.palette = palette;
    list.setId("passages");
    none.setId("passages-none");
    none.setWrapText(true);
    none.getStyleClass().add("faint");
  }

  /**
   * The list of all passages, which stays where it was scrolled to, or a sentence that says why
   * there is none.
   */
  Node lines(Optional<Separation> separation) {
    if (separation.isEmpty() || separation.get().passages().isEmpty()) {
      none.setText(text(noneWords(separation.isPresent())));
      return none;
    }
    List<Line> lines =
        separation.get().passages().stream()
            .map(p -> new Line(p, separation.get().stateOf(p), palette.get()))
            .toList();
    if (!list.getItems().equals(lines)) {
      list.getItems().setAll(lines);
    }
    return list;
  }

  /** Why there is nothing to see: nobody speaks, or it is being heard, or nobody can be heard. */
  private String noneWords(boolean wasHeard) {
    if (!session.shown().hasVoice()) {
      return "passages.none";
    }
    return wasHeard ? "passages.unheard" : "ear.notYet";
  }

  private Button line(Line line) {
    PassageLoudness p = line.passage();
    Separation.State state = line.state();
    Project project = session.shown();
    double lu = p.separationLu();
    Label time =
        new Label(
            Timecode.format(p.passage().startFrame(), project.pictureRate(), project.sampleRate()));
    time.getStyleClass().add("number");
    Label figure = new Label(Double.isFinite(lu) ? figure("%.1f LU", lu) : text("passages.alone"));
    figure.getStyleClass().add("number");
    Label words = new Label(text("state." + state.name().toLowerCase(Locale.ROOT)));
    words.getStyleClass().add("faint");
    Region space = new Region();
    HBox.setHgrow(space, Priority.ALWAYS);
    HBox row = new HBox(8, mark(state), time, space, figure, words);
    row.setAlignment(Pos.CENTER_LEFT);
    words.setMinWidth(46);
    words.visibleProperty().bind(row.widthProperty().greaterThan(NARROW));
    words.managedProperty().bind(words.visibleProperty());
    Button button = new Button();
    button.setGraphic(row);
    row.prefWidthProperty()
        .bind(
            Bindings.createDoubleBinding(
                () ->
                    button.getWidth()
                        - button.getInsets().getLeft()
                        - button.getInsets().getRight(),
                button.widthProperty(),
                button.insetsProperty()));
    button.getStyleClass().add("passage");
    button.setAccessibleText(
        text("passages.accessible", time.getText(), figure.getText(), words.getText()));
    button.setOnAction(e -> session.seek(p.passage().startFrame()));
    return button;
  }

  private Shape mark(Separation.State state) {
    Shape shape =
        switch (state) {
          case CLEAR -> new Polygon(0, 10, 6, 0, 12, 10);
          case TIGHT -> new Polygon(0, 3, 12, 3, 12, 7, 0, 7);
          case BURIED -> new Polygon(0, 0, 12, 0, 6, 10);
        };
    Color color =
        switch (state) {
          case CLEAR -> palette.get().clear();
          case TIGHT -> palette.get().tight();
          case BURIED -> palette.get().buried();
        };
    shape.setFill(color);
    return shape;
  }
}

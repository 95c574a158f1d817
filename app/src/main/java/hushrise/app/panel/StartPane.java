package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.FileChoice;
import hushrise.app.file.FileNames;
import hushrise.app.widget.Form;
import hushrise.core.project.media.MediaKind;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;

/**
 * What an empty window shows: three places to drop or choose what a film is made of, what can be
 * done without one of them, the projects of late, and the demo. In a low window it scrolls.
 */
public final class StartPane extends ScrollPane {

  private static final double TILE = 208;
  private static final double WIDTH = 700;

  private final FileChoice choice;
  private final BiConsumer<List<Path>, MediaKind> taken;
  private final Consumer<Path> opened;
  private final FlowPane projects = new FlowPane(8, 6);
  private final VBox late = new VBox(6);
  private final Label title = new Label(text("start.title"));
  private final HBox tiles = new HBox(14);
  private final Label without = new Label(text("start.without"));

  /**
   * @param taken receives files and what they are for
   * @param opened receives a project to open
   */
  public StartPane(
      FileChoice choice, BiConsumer<List<Path>, MediaKind> taken, Consumer<Path> opened) {
    this.choice = choice;
    this.taken = taken;
    this.opened = opened;
    setId("start");
    getStyleClass().add("start");
    setFitToWidth(true);
    setFitToHeight(true);
    setHbarPolicy(ScrollBarPolicy.NEVER);
    setFocusTraversable(false);
    title.setId("start-title");
    title.getStyleClass().add("start-title");
    tiles
        .getChildren()
        .addAll(tile(MediaKind.PICTURE), tile(MediaKind.VOICE), tile(MediaKind.MUSIC));
    tiles.setAlignment(Pos.CENTER);
    without.setWrapText(true);
    without.setTextAlignment(TextAlignment.CENTER);
    without.getStyleClass().add("faint");
    Label words = new Label(text("start.recent"));
    words.getStyleClass().add("faint");
    projects.setAlignment(Pos.CENTER);
    late.setAlignment(Pos.CENTER);
    late.getChildren().addAll(words, projects);
    VBox all = new VBox(18, title, tiles, without, late);
    all.setAlignment(Pos.CENTER);
    all.setMaxWidth(WIDTH);
    all.setMinHeight(USE_PREF_SIZE);
    all.getChildren().forEach(c -> ((Region) c).setMinHeight(USE_PREF_SIZE));
    StackPane middle = new StackPane(all);
    middle.getStyleClass().add("start-middle");
    setContent(middle);
  }

  private Button tile(MediaKind kind) {
    Label name = new Label(text("start." + kind.name()));
    name.getStyleClass().add("start-name");
    Label words = new Label(text("start." + kind.name() + ".words"));
    words.setWrapText(true);
    words.setTextAlignment(TextAlignment.CENTER);
    words.getStyleClass().add("faint");
    VBox content = new VBox(8, name, words);
    content.setAlignment(Pos.CENTER);
    content.setMaxWidth(TILE - 30);
    Button tile = new Button();
    tile.setGraphic(content);
    tile.setId("start-" + kind.name().toLowerCase(Locale.ROOT));
    tile.setAccessibleText(name.getText() + ": " + words.getText());
    tile.getStyleClass()
        .addAll("start-tile", "kind-" + kind.trackKind().name().toLowerCase(Locale.ROOT));
    tile.setPrefSize(TILE, 116);
    tile.setOnAction(
        e -> taken.accept(choice.toRead(FileChoice.Kind.MEDIA, name.getText(), true), kind));
    tile.setOnDragOver(
        e -> {
          if (e.getDragboard().hasFiles()) {
            e.acceptTransferModes(TransferMode.COPY);
          }
          e.consume();
        });
    tile.setOnDragDropped(
        e -> {
          taken.accept(e.getDragboard().getFiles().stream().map(File::toPath).toList(), kind);
          e.setDropCompleted(true);
          e.consume();
        });
    return tile;
  }

  /** Offers nothing while a project is read. */
  public void showReading(String project) {
    boolean offers = project.isEmpty();
    title.setText(offers ? text("start.title") : text("open.reading", project));
    tiles.setVisible(offers);
    without.setVisible(offers);
    late.setVisible(offers && !projects.getChildren().isEmpty());
  }

  /**
   * Shows projects to go on with.
   *
   * @param recent the latest first
   * @param demo whether the demo is at hand
   * @param openDemo opens it
   */
  public void show(List<Path> recent, boolean demo, Runnable openDemo) {
    projects.getChildren().clear();
    for (Path project : recent) {
      Button button =
          Form.button("start-recent", FileNames.bare(project), () -> opened.accept(project));
      button.setTooltip(new Tooltip(project.toString()));
      projects.getChildren().add(button);
    }
    if (demo) {
      projects.getChildren().add(Form.button("start-demo", text("start.demo"), openDemo));
    }
    late.setVisible(!projects.getChildren().isEmpty());
  }
}

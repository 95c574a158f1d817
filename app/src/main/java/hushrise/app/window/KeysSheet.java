package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import javafx.geometry.VPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;

/** All keys and what they do. */
final class KeysSheet {

  private static final int COLUMNS = 2;
  private static final double HEIGHT = 480;

  private KeysSheet() {}

  static void open(Sheet sheet) {
    GridPane grid = new GridPane();
    grid.setHgap(14);
    grid.setVgap(4);
    List<CommandId> shown =
        Arrays.stream(CommandId.values()).filter(id -> !id.keys().isEmpty()).toList();
    int rows = (shown.size() + COLUMNS - 1) / COLUMNS;
    for (int i = 0; i < shown.size(); i++) {
      Label key =
          new Label(
              shown.get(i).keys().stream()
                  .map(k -> k.getDisplayText())
                  .collect(Collectors.joining(", ")));
      key.getStyleClass().add("number");
      key.setMinWidth(Label.USE_PREF_SIZE);
      Label words = new Label(shown.get(i).words());
      words.setWrapText(true);
      GridPane.setHgrow(words, Priority.ALWAYS);
      GridPane.setValignment(key, VPos.TOP);
      GridPane.setValignment(words, VPos.TOP);
      grid.add(key, i / rows * 2, i % rows);
      grid.add(words, i / rows * 2 + 1, i % rows);
    }
    ScrollPane scroll = new ScrollPane(grid);
    scroll.setFitToWidth(true);
    scroll.setPrefViewportHeight(HEIGHT);
    Button close = new Button(text("sheet.close"));
    close.setDefaultButton(true);
    close.setOnAction(e -> sheet.close());
    sheet.openWide(text("keys.title"), close, scroll, Sheet.buttons(close));
  }
}

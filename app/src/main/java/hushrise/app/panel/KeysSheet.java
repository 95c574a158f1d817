package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Command;
import hushrise.app.Commands;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;

/** All keys and what they do. */
public final class KeysSheet {

  private static final int COLUMNS = 2;

  private KeysSheet() {}

  public static void open(Sheet sheet, Commands commands) {
    GridPane grid = new GridPane();
    grid.setHgap(14);
    grid.setVgap(4);
    List<Command> shown =
        commands.all().stream().filter(c -> !c.words().isEmpty() && c.keys().isPresent()).toList();
    int rows = (shown.size() + COLUMNS - 1) / COLUMNS;
    for (int i = 0; i < shown.size(); i++) {
      Label key = new Label(shown.get(i).keyWords());
      key.getStyleClass().add("number");
      key.setMinWidth(Label.USE_PREF_SIZE);
      Label words = new Label(shown.get(i).words());
      grid.add(key, i / rows * 2, i % rows);
      grid.add(words, i / rows * 2 + 1, i % rows);
    }
    ScrollPane scroll = new ScrollPane(grid);
    scroll.setFitToWidth(true);
    scroll.setPrefViewportHeight(480);
    Button close = new Button(text("sheet.close"));
    close.setDefaultButton(true);
    close.setOnAction(e -> sheet.close());
    sheet.openWide(text("keys.title"), close, scroll, Sheet.buttons(close));
  }
}

package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.widget.Focus;
import java.util.List;
import javafx.geometry.Bounds;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.stage.Popup;

/** Finds a command by a part of its words, shows its key, and does it. */
final class CommandFinder extends TextField {

  private static final int MOST = 10;
  private static final double ROW = 28;
  private static final double BORDER = 8;
  private static final double WIDTH = 480;

  private final Runnable leave;
  private final Popup popup = new Popup();
  private final ListView<CommandId> found = new ListView<>();
  private Commands commands;

  /**
   * @param leave gives the keys back to the timeline
   */
  CommandFinder(Runnable leave) {
    this.leave = leave;
    setId("finder");
    getStyleClass().add("finder");
    setPromptText(text("finder.prompt"));
    setAccessibleText(CommandId.FIND_COMMAND.words());
    setTooltip(new Tooltip(CommandId.FIND_COMMAND.tip()));
    setPrefColumnCount(11);
    setMinWidth(110);
    found.setId("finder-list");
    found.setFixedCellSize(ROW);
    found.setPrefWidth(WIDTH);
    found.setFocusTraversable(false);
    found.setPlaceholder(new Label(text("finder.none")));
    found.getStyleClass().addAll("hush-rise", "finder-list");
    found.setCellFactory(list -> new Row());
    popup.getContent().add(found);
    popup.setAutoHide(true);
    popup.setHideOnEscape(false);
    textProperty().addListener((p, was, now) -> look());
    focusedProperty()
        .addListener(
            (p, was, now) -> {
              if (!now) {
                close();
              }
            });
    addEventFilter(KeyEvent.KEY_PRESSED, this::key);
  }

  void setCommands(Commands all) {
    commands = all;
  }

  /** Takes the keys. */
  void begin() {
    Focus.ask(this);
    selectAll();
  }

  private void look() {
    if (getText().isBlank()) {
      popup.hide();
      return;
    }
    List<CommandId> all = commands.found(getText());
    found.getItems().setAll(all.stream().limit(MOST).toList());
    found.setPrefHeight(ROW * Math.max(1, found.getItems().size()) + BORDER);
    found.getSelectionModel().select(0);
    if (!popup.isShowing() && getScene() != null && getScene().getWindow().isShowing()) {
      Bounds at = localToScreen(getBoundsInLocal());
      found.setStyle(getScene().getRoot().getStyle());
      found.getStylesheets().setAll(getScene().getRoot().getStylesheets());
      popup.show(this, at.getMaxX() - WIDTH, at.getMaxY() + 2);
    }
  }

  private void key(KeyEvent e) {
    int at = found.getSelectionModel().getSelectedIndex();
    switch (e.getCode()) {
      case DOWN -> found.getSelectionModel().select(Math.min(at + 1, found.getItems().size() - 1));
      case UP -> found.getSelectionModel().select(Math.max(at - 1, 0));
      case ENTER -> run(found.getSelectionModel().getSelectedItem());
      case ESCAPE -> {
        close();
        leave.run();
      }
      default -> {
        return;
      }
    }
    e.consume();
  }

  private void run(CommandId id) {
    boolean any = popup.isShowing() && id != null;
    close();
    leave.run();
    if (any) {
      commands.run(id);
    }
  }

  private void close() {
    popup.hide();
    clear();
  }

  /** A command with its key; one that is not possible now is faint. */
  private final class Row extends ListCell<CommandId> {

    private final Label words = new Label();
    private final Label key = new Label();
    private final HBox row;

    Row() {
      Region space = new Region();
      HBox.setHgrow(space, Priority.ALWAYS);
      words.setMinWidth(0);
      key.getStyleClass().add("number");
      key.setMinWidth(USE_PREF_SIZE);
      row = new HBox(12, words, space, key);
      row.setAlignment(Pos.CENTER_LEFT);
      row.setPrefWidth(1);
      setOnMouseClicked(e -> run(getItem()));
    }

    @Override
    protected void updateItem(CommandId id, boolean empty) {
      super.updateItem(id, empty);
      if (empty || id == null) {
        setGraphic(null);
        return;
      }
      words.setText(id.words());
      key.setText(id.keyWords());
      words.getStyleClass().remove("faint");
      if (!commands.isPossible(id)) {
        words.getStyleClass().add("faint");
      }
      setAccessibleText(id.tip());
      setGraphic(row);
    }
  }
}

package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import java.io.File;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.stage.FileChooser;

/** Asks for a file: its path can be typed, or chosen in the system's dialog. */
public final class FileSheet {

  private final Sheet sheet;
  private final boolean toSave;
  private final TextField path = new TextField();
  private final FileChooser chooser = new FileChooser();

  /**
   * @param toSave whether the file is to be written
   * @param suggestion what stands in the field first
   * @param endings such as {@code *.hushrise}; empty for any file
   */
  public FileSheet(Sheet sheet, boolean toSave, String suggestion, List<String> endings) {
    this.sheet = sheet;
    this.toSave = toSave;
    path.setText(suggestion);
    path.setId("file-path");
    path.setPrefColumnCount(40);
    HBox.setHgrow(path, Priority.ALWAYS);
    if (!endings.isEmpty()) {
      chooser
          .getExtensionFilters()
          .add(new FileChooser.ExtensionFilter(text("file.filter"), endings));
    }
  }

  /** Shows the sheet; {@code then} receives the file when it is confirmed. */
  public void ask(String title, String action, Consumer<Path> then) {
    Label label = new Label(text("file.path"));
    label.setLabelFor(path);
    Button confirm = new Button(action);
    confirm.setId("file-confirm");
    confirm.setDefaultButton(true);
    confirm.getStyleClass().add("accent");
    confirm.disableProperty().bind(path.textProperty().isEmpty());
    confirm.setOnAction(
        e -> {
          Path chosen = chosen();
          sheet.close();
          then.accept(chosen);
        });
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setOnAction(e -> sheet.close());
    sheet.open(title, path, () -> {}, label, field(), Sheet.buttons(cancel, confirm));
    path.end();
  }

  /** The path field with its Browse button. */
  HBox field() {
    Button browse = new Button(text("file.browse"));
    browse.setOnAction(e -> browse());
    return new HBox(8, path, browse);
  }

  TextField path() {
    return path;
  }

  Path chosen() {
    String typed = path.getText().strip();
    try {
      return Path.of(
              typed.startsWith("~/") ? System.getProperty("user.home") + typed.substring(1) : typed)
          .toAbsolutePath()
          .normalize();
    } catch (InvalidPathException e) {
      throw new hushrise.core.Problem(text("file.invalid", typed), e);
    }
  }

  private void browse() {
    File folder = chosen().toFile().getParentFile();
    if (folder != null && folder.isDirectory()) {
      chooser.setInitialDirectory(folder);
    }
    chooser.setInitialFileName(toSave ? new File(path.getText()).getName() : "");
    var window = sheet.getScene().getWindow();
    File file = toSave ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window);
    if (file != null) {
      path.setText(file.getPath());
    }
  }
}

package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Session;
import hushrise.app.widget.LevelField;
import hushrise.core.edit.SafeLevel;
import hushrise.core.project.media.TrackKind;
import javafx.beans.property.ObjectProperty;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;

/** The numbers that a safe level is made of. */
final class SafeSheet {

  private static final TrackKind[] KINDS = {
    TrackKind.VOICE, TrackKind.MUSIC, TrackKind.EFFECTS, TrackKind.CAMERA
  };

  private SafeSheet() {}

  static void open(Sheet sheet, ObjectProperty<SafeLevel.Rule> rule, Session session) {
    GridPane grid = new GridPane(12, 8);
    for (int i = 0; i < KINDS.length; i++) {
      TrackKind kind = KINDS[i];
      Label name = new Label(text("track.kind." + kind.name()));
      LevelField field =
          new LevelField(
              name.getText(), db -> rule.set(rule.get().withLufs(kind, Math.min(-6, db))));
      field.setId("safe-" + kind);
      field.show(rule.get().usualLufs().get(kind));
      name.setLabelFor(field);
      grid.addRow(i, name, field, new Label(text("safe.lufs")));
    }
    Label hot = new Label(text("safe.hot"));
    LevelField hotField =
        new LevelField(hot.getText(), db -> session.habits().hotDbProperty().set(Math.min(0, db)));
    hotField.setId("safe-hot");
    hotField.show(session.habits().hotDbProperty().get());
    hot.setLabelFor(hotField);
    grid.addRow(KINDS.length, hot, hotField, new Label(text("safe.dbfs")));
    Label words = new Label(text("safe.words"));
    words.setWrapText(true);
    words.getStyleClass().add("faint");
    Button close = new Button(text("sheet.close"));
    close.setDefaultButton(true);
    close.setOnAction(e -> sheet.close());
    sheet.open(text("safe.title"), close, () -> {}, words, grid, Sheet.buttons(close));
  }
}

package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Session;
import hushrise.app.widget.NumberField;
import hushrise.core.edit.SafeLevel;
import hushrise.core.project.media.TrackKind;
import javafx.beans.property.ObjectProperty;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;

/** The numbers that a safe level is made of. */
final class SafeSheet {

  /** The kinds that have a usual loudness. */
  static final TrackKind[] KINDS = {
    TrackKind.VOICE, TrackKind.MUSIC, TrackKind.EFFECTS, TrackKind.CAMERA
  };

  static final double LEAST_LUFS = -60;
  static final double MOST_LUFS = -6;
  static final double LEAST_HOT_DB = -30;

  private SafeSheet() {}

  static void open(Sheet sheet, ObjectProperty<SafeLevel.Rule> rule, Session session) {
    GridPane grid = new GridPane(12, 8);
    for (int i = 0; i < KINDS.length; i++) {
      TrackKind kind = KINDS[i];
      Label name = new Label(text("track.kind." + kind.name()));
      NumberField field =
          new NumberField(
              name.getText(),
              LEAST_LUFS,
              MOST_LUFS,
              lufs -> rule.set(rule.get().withLufs(kind, lufs)));
      field.setId("safe-" + kind);
      field.show(rule.get().usualLufs().get(kind));
      name.setLabelFor(field);
      grid.addRow(i, name, field, new Label(text("safe.lufs")));
    }
    Label hot = new Label(text("safe.hot"));
    NumberField hotField =
        new NumberField(
            hot.getText(), LEAST_HOT_DB, 0, db -> session.habits().hotDbProperty().set(db));
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
    sheet.open(text("safe.title"), grid.lookup("#safe-VOICE"), words, grid, Sheet.buttons(close));
  }
}

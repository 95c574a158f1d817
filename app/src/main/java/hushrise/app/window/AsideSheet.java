package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.widget.Takes;
import hushrise.app.widget.TypedField;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;

/** Asks for the reason before a finding is put aside. */
public final class AsideSheet {

  private AsideSheet() {}

  /**
   * Opens the question.
   *
   * @param finding what the finding says
   * @param then receives the reason, which may be empty
   */
  public static void open(Sheet sheet, String finding, Consumer<String> then) {
    Label words = new Label(finding);
    words.setWrapText(true);
    TextField reason = new TextField();
    Takes.limit(reason, TypedField.LONGEST);
    reason.setId("aside-why");
    reason.setPromptText(text("aside.prompt"));
    reason.setAccessibleText(text("aside.prompt"));
    Button confirm = new Button(text("ear.aside"));
    confirm.setId("aside-confirm");
    confirm.getStyleClass().add("accent");
    confirm.setDefaultButton(true);
    confirm.setOnAction(
        e -> {
          sheet.close();
          then.accept(reason.getText());
        });
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setOnAction(e -> sheet.close());
    sheet.open(text("aside.title"), reason, words, reason, Sheet.buttons(cancel, confirm));
  }
}

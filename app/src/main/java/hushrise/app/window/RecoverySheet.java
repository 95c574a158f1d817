package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.look.Palette;
import hushrise.app.widget.Form;
import hushrise.app.widget.ProjectSketch;
import hushrise.app.words.Times;
import hushrise.core.journal.Journals;
import hushrise.core.journal.Recovered;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.value.ObservableValue;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Offers what a crash has left: which project, how much, from when, and what it looks like. */
final class RecoverySheet {

  private static final double SKETCH_WIDTH = 220;
  private static final double SKETCH_HEIGHT = 84;

  private final Sheet sheet;
  private final Journals journals;
  private final ObservableValue<Palette> palette;
  private final Consumer<Recovered> goOn;

  /**
   * @param goOn opens what is wanted
   */
  RecoverySheet(
      Sheet sheet, Journals journals, ObservableValue<Palette> palette, Consumer<Recovered> goOn) {
    this.sheet = sheet;
    this.journals = journals;
    this.palette = palette;
    this.goOn = goOn;
  }

  /**
   * Shows the offer.
   *
   * @param left the latest first, at least one
   */
  void open(List<Recovered> left) {
    Label words = new Label(text("recover.words"));
    words.setWrapText(true);
    VBox rows = new VBox(14);
    List<Button> answers = new ArrayList<>();
    for (int i = 0; i < left.size(); i++) {
      rows.getChildren().add(row(left, i, answers));
    }
    Button later = Form.button("recover-later", text("recover.later"), sheet::close);
    answers.getFirst().setDefaultButton(true);
    answers.getFirst().getStyleClass().add("accent");
    sheet.openWide(text("recover.title"), answers.getFirst(), words, rows, Sheet.buttons(later));
  }

  private HBox row(List<Recovered> left, int index, List<Button> answers) {
    Recovered recovered = left.get(index);
    String name = recovered.name().isBlank() ? text("recover.unnamed") : recovered.name();
    Label title = new Label(name);
    title.getStyleClass().add("panel-title");
    Label facts =
        new Label(
            text("recover.facts", name, recovered.steps(), Times.said(recovered.lastEditAt())));
    facts.setWrapText(true);
    Label file =
        new Label(
            recovered
                .project()
                .map(p -> text("recover.file", p))
                .orElseGet(() -> text("recover.nofile")));
    file.setWrapText(true);
    file.getStyleClass().add("faint");
    Button go =
        Form.button(
            "recover-go-" + index,
            text("recover.go"),
            () -> {
              sheet.close();
              goOn.accept(recovered);
            });
    Button drop =
        Form.button("recover-drop-" + index, text("recover.drop"), () -> drop(left, recovered));
    answers.add(go);
    VBox told = new VBox(6, facts, file, new HBox(8, go, drop));
    HBox.setHgrow(told, Priority.ALWAYS);
    ProjectSketch sketch =
        new ProjectSketch(
            recovered.history().present(), palette.getValue(), SKETCH_WIDTH, SKETCH_HEIGHT);
    HBox row = new HBox(16, sketch, told);
    row.setAlignment(Pos.TOP_LEFT);
    return row;
  }

  private void drop(List<Recovered> left, Recovered recovered) {
    sheet.ask(
        text("recover.drop"),
        text("recover.drop.question", recovered.name()),
        text("recover.drop"),
        () -> {
          journals.discard(recovered);
          sheet.close();
          List<Recovered> rest = left.stream().filter(r -> r != recovered).toList();
          if (!rest.isEmpty()) {
            open(rest);
          }
        });
  }
}

package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.EarCommands;
import hushrise.app.widget.Form;
import hushrise.core.ear.Finding;
import hushrise.core.ear.NoCredit;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;

/**
 * One finding of the Second Ear: its sentence, and what can be done about it. What it stands for
 * may be heard anew while it looks the same.
 */
final class FindingRow extends VBox {

  /**
   * What a row says: rows that say the same look the same.
   *
   * @param key of the finding
   * @param place where to listen, as a timecode
   * @param words its sentence
   * @param remedies what can be done
   */
  record Look(String key, String place, String words, List<String> remedies) {

    static Look of(Finding finding, String place) {
      List<String> remedies = finding.remedies().stream().map(EarCommands::words).toList();
      return new Look(finding.key(), place, EarCommands.words(finding), remedies);
    }
  }

  /**
   * What a row's parts do.
   *
   * @param goTo goes to the finding
   * @param putAside asks for the reason to put it aside
   * @param openCredits opens the credits
   * @param mend makes a remedy a step
   * @param pointed is told that the pointer moves over a remedy
   * @param left is told that the pointer has left it
   */
  record Acts(
      Consumer<Finding> goTo,
      Consumer<Finding> putAside,
      Runnable openCredits,
      Consumer<Finding.Remedy> mend,
      BiConsumer<Finding.Remedy, MouseEvent> pointed,
      Runnable left) {}

  private final Acts acts;
  private Finding finding;

  FindingRow(Look look, Finding finding, Acts acts) {
    super(2);
    this.acts = acts;
    this.finding = finding;
    getStyleClass().add("finding");
    FlowPane ways = new FlowPane(6, 4);
    ways.setMinWidth(0); // else it is as wide as its widest button
    for (int i = 0; i < look.remedies().size(); i++) {
      Button remedy = remedy(look.remedies().get(i), i);
      remedy.setWrapText(true);
      remedy.maxWidthProperty().bind(ways.widthProperty());
      ways.getChildren().add(remedy);
    }
    if (finding.rule().equals(NoCredit.ID)) {
      ways.getChildren().add(Form.button("ear-credits", text("credits.open"), acts.openCredits()));
    }
    ways.getChildren().add(aside());
    getChildren().addAll(sentence(look), ways);
  }

  /** Lets the row stand for a finding that looks the same. */
  FindingRow standFor(Finding same, boolean chosen) {
    finding = same;
    if (!chosen) {
      getStyleClass().remove("chosen");
    } else if (!getStyleClass().contains("chosen")) {
      getStyleClass().add("chosen");
    }
    return this;
  }

  private String idOf(String part) {
    return part + "-" + finding.rule().replace('.', '-');
  }

  private Button sentence(Look look) {
    Button sentence = new Button(look.place() + "  " + look.words());
    sentence.setMnemonicParsing(false);
    sentence.setWrapText(true);
    sentence.setMaxWidth(Double.MAX_VALUE);
    sentence.setAlignment(Pos.TOP_LEFT);
    sentence.setTextAlignment(TextAlignment.LEFT);
    sentence.getStyleClass().add("passage");
    sentence.setId(idOf("finding"));
    sentence.setAccessibleText(text("ear.accessible", look.place(), look.words()));
    sentence.setOnAction(e -> acts.goTo().accept(finding));
    return sentence;
  }

  private Button remedy(String words, int index) {
    Button button =
        Form.button(
            idOf("remedy") + (index == 0 ? "" : "-" + index),
            words,
            () -> acts.mend().accept(finding.remedies().get(index)));
    button.setTooltip(new Tooltip(text(index == 0 ? "ear.mend.tip" : "ear.mendOther.tip")));
    button.setOnMouseMoved(e -> acts.pointed().accept(finding.remedies().get(index), e));
    button.setOnMouseExited(e -> acts.left().run());
    return button;
  }

  private Button aside() {
    Button aside =
        Form.button(idOf("aside"), text("ear.aside"), () -> acts.putAside().accept(finding));
    aside.setTooltip(new Tooltip(text("ear.aside.tip")));
    aside.getStyleClass().add("quiet");
    return aside;
  }
}

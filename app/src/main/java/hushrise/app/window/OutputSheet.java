package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.play.Loudspeaker;
import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.sound.Devices;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;

/** Chooses what sound is played through, while it plays or not. */
final class OutputSheet {

  private OutputSheet() {}

  static void open(Sheet sheet, Devices devices, Loudspeaker loudspeaker, Messages messages) {
    ListView<String> list = new ListView<>();
    list.setId("outputs");
    list.setAccessibleText(text("output.title"));
    list.getItems().setAll(devices.outputs());
    list.setPrefHeight(160);
    list.getSelectionModel().select(loudspeaker.outputNameProperty().get());
    Label words = new Label(text("output.words"));
    words.setWrapText(true);
    words.getStyleClass().add("faint");
    Button take = new Button(text("output.take"));
    take.setId("output-take");
    take.setDefaultButton(true);
    take.getStyleClass().add("accent");
    take.setOnAction(
        e -> {
          String name = list.getSelectionModel().getSelectedItem();
          sheet.close();
          if (name != null) {
            try {
              loudspeaker.chooseOutput(devices.output(name, Project.DEFAULT_SAMPLE_RATE));
              messages.say(text("output.now", name));
            } catch (Problem problem) {
              messages.complain(problem.getMessage());
            }
          }
        });
    Sheet.picks(list, take);
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setOnAction(e -> sheet.close());
    sheet.open(text("output.title"), list, words, list, Sheet.buttons(cancel, take));
  }
}

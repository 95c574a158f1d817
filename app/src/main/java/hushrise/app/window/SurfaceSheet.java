package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.play.SurfaceRides;
import hushrise.core.sound.Devices;
import hushrise.media.RehearsalSurface;
import javafx.geometry.Orientation;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.Slider;
import javafx.scene.layout.HBox;

/** Chooses a control surface; the rehearsal one shows its faders here. */
final class SurfaceSheet {

  private static final int FADERS = 4;

  private SurfaceSheet() {}

  static void open(Sheet sheet, Devices devices, SurfaceRides rides) {
    ListView<String> list = new ListView<>();
    list.setId("surfaces");
    list.setAccessibleText(text("surface.title"));
    list.getItems().setAll(devices.surfaces());
    list.setPrefHeight(110);
    Label words = new Label(text("surface.words"));
    words.setWrapText(true);
    words.getStyleClass().add("faint");
    HBox faders = new HBox(18);
    faders.setId("rehearsal-faders");
    Button take = new Button(text("surface.take"));
    take.setId("surface-take");
    take.setDefaultButton(true);
    take.setOnAction(
        e -> {
          String name = list.getSelectionModel().getSelectedItem();
          if (name != null) {
            rides.open(devices, name);
            showFaders(faders, rides);
          }
        });
    Sheet.picks(list, take);
    Button close = new Button(text("sheet.close"));
    close.setOnAction(e -> sheet.close());
    list.getSelectionModel()
        .select(rides.surface().map(s -> s.name()).orElse(list.getItems().getFirst()));
    showFaders(faders, rides);
    sheet.open(text("surface.title"), list, words, list, faders, Sheet.buttons(close, take));
  }

  private static void showFaders(HBox row, SurfaceRides rides) {
    row.getChildren().clear();
    if (rides.surface().isPresent() && rides.surface().get() instanceof RehearsalSurface surface) {
      for (int i = 0; i < FADERS; i++) {
        int fader = i;
        Slider slider = new Slider(0, 1, 0.75);
        slider.setId("rehearsal-fader-" + i);
        slider.setOrientation(Orientation.VERTICAL);
        slider.setPrefHeight(110);
        slider.setAccessibleText(text("surface.fader", i + 1));
        slider.valueProperty().addListener((p, was, now) -> surface.move(fader, now.doubleValue()));
        row.getChildren().add(slider);
      }
    }
  }
}

package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.file.FileNames;
import hushrise.app.play.Transport;
import hushrise.app.session.Session;
import hushrise.app.widget.TimeField;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.kordamp.ikonli.Ikon;
import org.kordamp.ikonli.javafx.FontIcon;
import org.kordamp.ikonli.material2.Material2AL;
import org.kordamp.ikonli.material2.Material2MZ;

/**
 * The bar at the top: the project and whether it is saved, play, the clock, the finder of commands,
 * and the main actions.
 */
final class TopBar extends HBox {

  private final Session session;
  private final Commands commands;
  private final Label name = new Label();
  private final Label saved = new Label();
  private final TimeField clock = new TimeField();
  private final Button undo;
  private final Button redo;

  TopBar(Session session, Transport transport, Commands commands, CommandFinder finder) {
    super(6);
    this.session = session;
    this.commands = commands;
    getStyleClass().add("top-bar");
    setAlignment(Pos.CENTER_LEFT);
    name.getStyleClass().add("project-name");
    name.setId("project-name");
    name.setMinWidth(40);
    saved.getStyleClass().add("faint");
    saved.setId("saved-state");
    saved.setMinWidth(Region.USE_PREF_SIZE);
    clock.getStyleClass().add("clock");
    clock.setId("clock");
    clock.setPrefWidth(138);
    clock.setMinWidth(138);
    clock.setAccessibleText(text("clock.accessible"));
    clock.setTip(text("clock.tip"));
    clock.setRate(() -> session.shown().pictureRate(), () -> session.shown().sampleRate());
    clock.onTime(session::seek);
    Button play = button("play", Material2MZ.PLAY_ARROW, "", CommandId.PLAY);
    play.getStyleClass().add("play");
    transport
        .playingProperty()
        .addListener(
            (p, was, now) -> {
              play.setGraphic(new FontIcon(now ? Material2MZ.STOP : Material2MZ.PLAY_ARROW));
              play.setAccessibleText(text(now ? "top.stop" : "top.play"));
            });
    undo = button("undo", Material2MZ.UNDO, "", CommandId.UNDO);
    redo = button("redo", Material2MZ.REDO, "", CommandId.REDO);
    Button export =
        button("export", Material2AL.DIRECTIONS_BOAT, text("top.export"), CommandId.EXPORT);
    export.getStyleClass().add("accent");
    getChildren()
        .addAll(
            name,
            saved,
            space(),
            undo,
            redo,
            gap(),
            play,
            clock,
            gap(),
            button("hush", Material2AL.GRAPHIC_EQ, text("top.hush"), CommandId.HUSH_ALL),
            space(),
            finder,
            button("shelf-button", Material2MZ.VIEW_SIDEBAR, text("top.shelf"), CommandId.SHELF),
            button("add", Material2AL.ADD, text("top.add"), CommandId.ADD),
            export);
    session.shownProperty().addListener((p, was, now) -> update());
    session.unsavedProperty().addListener((p, was, now) -> update());
    session.playheadProperty().addListener((p, was, now) -> showClock());
    update();
  }

  private Button button(String id, Ikon icon, String words, CommandId command) {
    Button button = new Button(words);
    button.setMnemonicParsing(false);
    button.setMinWidth(USE_PREF_SIZE);
    button.setGraphic(new FontIcon(icon));
    button.setId(id);
    button.setAccessibleText(words.isEmpty() ? command.tip() : words);
    button.setTooltip(new Tooltip(command.tip()));
    button.setOnAction(e -> commands.run(command));
    return button;
  }

  private static Region space() {
    Region region = new Region();
    HBox.setHgrow(region, Priority.ALWAYS);
    return region;
  }

  private static Region gap() {
    Region region = new Region();
    region.setMinWidth(6);
    return region;
  }

  private void update() {
    name.setText(FileNames.nameOf(session.present()));
    saved.setText(savedWords());
    describe(undo, "top.undo", session.undoName());
    describe(redo, "top.redo", session.redoName());
    showClock();
  }

  /** Whether the project is saved; nothing is said of what is not there. */
  private String savedWords() {
    if (session.hasUnsavedChanges()) {
      return text("saved.not");
    }
    return session.file().isPresent() ? text("saved") : "";
  }

  private static void describe(Button button, String key, Optional<String> step) {
    String words = step.map(n -> text(key, n)).orElse(text(key + ".none"));
    button.setDisable(step.isEmpty());
    button.setAccessibleText(words);
    button.getTooltip().setText(words);
  }

  private void showClock() {
    clock.show(session.playhead());
  }
}

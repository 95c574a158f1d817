package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Session;
import hushrise.app.Transport;
import hushrise.core.time.Timecode;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.kordamp.ikonli.Ikon;
import org.kordamp.ikonli.javafx.FontIcon;
import org.kordamp.ikonli.material2.Material2AL;
import org.kordamp.ikonli.material2.Material2MZ;

/**
 * The bar at the top: the project and whether it is saved, play, the clock, and the main actions.
 */
public final class TopBar extends HBox {

  /** What the bar's buttons do. */
  public interface Actions {
    void add();

    void open();

    void save();

    void undo();

    void redo();

    void hush();

    void shelf();

    void toggleShelf();

    void theme();

    void deliver();
  }

  private final Session session;
  private final Label name = new Label();
  private final Label saved = new Label();
  private final TextField clock = new TextField();
  private final Button undo;
  private final Button redo;

  public TopBar(Session session, Transport transport, Actions actions) {
    super(6);
    this.session = session;
    getStyleClass().add("top-bar");
    setAlignment(Pos.CENTER_LEFT);
    name.getStyleClass().add("project-name");
    name.setId("project-name");
    name.setMaxWidth(220);
    saved.getStyleClass().add("faint");
    saved.setId("saved-state");
    clock.getStyleClass().add("clock");
    clock.setId("clock");
    clock.setPrefWidth(138);
    clock.setMinWidth(138);
    clock.setAccessibleText(text("clock.accessible"));
    clock.setTooltip(new Tooltip(text("clock.tip")));
    clock.setOnAction(e -> typed());
    Button play = button("play", Material2MZ.PLAY_ARROW, "", text("top.play"), transport::toggle);
    play.getStyleClass().add("play");
    transport
        .playingProperty()
        .addListener(
            (p, was, now) -> {
              play.setGraphic(new FontIcon(now ? Material2MZ.STOP : Material2MZ.PLAY_ARROW));
              play.setAccessibleText(text(now ? "top.stop" : "top.play"));
            });
    undo = button("undo", Material2MZ.UNDO, "", "", actions::undo);
    redo = button("redo", Material2MZ.REDO, "", "", actions::redo);
    Button deliver =
        button(
            "deliver",
            Material2AL.DIRECTIONS_BOAT,
            text("top.deliver"),
            text("top.deliver.tip"),
            actions::deliver);
    deliver.getStyleClass().add("accent");
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
            button(
                "hush",
                Material2AL.GRAPHIC_EQ,
                text("top.hush"),
                text("top.hush.tip"),
                actions::hush),
            space(),
            button(
                "shelf-button",
                Material2MZ.VIEW_SIDEBAR,
                text("top.shelf"),
                text("top.shelf.tip"),
                actions::toggleShelf),
            button("add", Material2AL.ADD, text("top.add"), text("top.add.tip"), actions::add),
            button(
                "open",
                Material2AL.FOLDER_OPEN,
                text("top.open"),
                text("top.open.tip"),
                actions::open),
            button("save", Material2MZ.SAVE, text("top.save"), text("top.save.tip"), actions::save),
            button("theme", Material2MZ.NIGHTS_STAY, "", text("top.theme.tip"), actions::theme),
            deliver);
    session.projectProperty().addListener((p, was, now) -> update());
    session.unsavedProperty().addListener((p, was, now) -> update());
    session.playheadProperty().addListener((p, was, now) -> showClock());
    update();
  }

  private static Button button(String id, Ikon icon, String words, String tip, Runnable action) {
    Button button = new Button(words);
    button.setGraphic(new FontIcon(icon));
    button.setId(id);
    button.setAccessibleText(words.isEmpty() ? tip : words);
    button.setTooltip(new Tooltip(tip));
    button.setOnAction(e -> action.run());
    return button;
  }

  private static Region space() {
    Region region = new Region();
    HBox.setHgrow(region, Priority.ALWAYS);
    return region;
  }

  private static Region gap() {
    Region region = new Region();
    region.setMinWidth(10);
    return region;
  }

  private void update() {
    name.setText(session.project().name().isBlank() ? text("untitled") : session.project().name());
    saved.setText(text(session.hasUnsavedChanges() ? "saved.not" : "saved"));
    describe(
        undo,
        session.undoName().map(n -> text("top.undo", n)).orElse(text("top.undo.none")),
        session.undoName().isPresent());
    describe(
        redo,
        session.redoName().map(n -> text("top.redo", n)).orElse(text("top.redo.none")),
        session.redoName().isPresent());
    showClock();
  }

  private static void describe(Button button, String words, boolean can) {
    button.setDisable(!can);
    button.setAccessibleText(words);
    button.getTooltip().setText(words);
  }

  private void showClock() {
    if (!clock.isFocused()) {
      clock.setText(now());
    }
  }

  private String now() {
    return Timecode.format(
        session.playhead(), session.project().pictureRate(), session.project().sampleRate());
  }

  private void typed() {
    Timecode.parse(clock.getText(), session.project().pictureRate(), session.project().sampleRate())
        .ifPresent(session::seek);
    clock.setText(now());
  }
}

package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.look.Palette;
import hushrise.app.record.Background;
import hushrise.app.record.Recording;
import hushrise.app.session.Session;
import hushrise.app.widget.Choice;
import hushrise.app.widget.Form;
import hushrise.core.sound.Devices;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.animation.AnimationTimer;
import javafx.beans.property.ObjectProperty;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The recorder: input and its level, the take, and the text to read. */
public final class RecorderPane extends VBox {

  private static final double WIDTH = 276;
  private static final double LOWEST_DB = -60;
  private static final double METER_HEIGHT = 14;
  private static final double SILENT_DB = -45;

  private final Session session;
  private final Recording recording;
  private final ObjectProperty<Palette> palette;
  private final Canvas meter = new Canvas(WIDTH, METER_HEIGHT);
  private final Label state = new Label();
  private final Label verdict = new Label();
  private final Button record;
  private final Button rest;
  private final Button folder;
  private final ReadingPane reading;
  private double shownDb = LOWEST_DB;
  private final AnimationTimer timer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          step();
        }
      };

  /**
   * @param chooseFolder asks for a folder for takes
   */
  public RecorderPane(
      Session session,
      Recording recording,
      Devices devices,
      Commands commands,
      ObjectProperty<Palette> palette,
      java.util.function.Supplier<Optional<Path>> chooseFolder) {
    super(8);
    this.session = session;
    this.recording = recording;
    this.palette = palette;
    this.reading = new ReadingPane(session);
    setId("recorder");
    getStyleClass().add("shelf");
    Label title = new Label(text("recorder.title"));
    title.getStyleClass().add("pane-title");
    state.setId("recorder-state");
    state.getStyleClass().add("number");
    HBox head = new HBox(8, title, state);
    verdict.setId("recorder-verdict");
    verdict.setWrapText(true);
    verdict.getStyleClass().add("faint");
    record = button("recorder-record", CommandId.RECORD, commands);
    record.getStyleClass().add("accent");
    rest = button("recorder-rest", CommandId.RECORD_REST, commands);
    Button check = button("recorder-check", CommandId.INPUT_CHECK, commands);
    check.setText(text("recorder.check"));
    Button latency = button("recorder-latency", CommandId.INPUT_LATENCY, commands);
    latency.setText(text("recorder.latency"));
    folder = Form.button("recorder-folder", "", () -> choose(chooseFolder));
    folder.setMaxWidth(WIDTH);
    CheckBox drafts = new CheckBox(text("recorder.drafts"));
    drafts.setId("recorder-drafts");
    drafts.selectedProperty().bindBidirectional(recording.draftsProperty());
    VBox.setVgrow(reading, Priority.ALWAYS);
    getChildren()
        .addAll(
            head,
            choices(devices),
            meter,
            new HBox(6, check, latency),
            verdict,
            new HBox(6, record, rest),
            drafts,
            folder,
            reading);
    recording.stateProperty().addListener((p, was, now) -> update());
    recording
        .verdictProperty()
        .addListener((p, was, now) -> verdict.setText(now.map(Recording::words).orElse("")));
    session.presentProperty().addListener((p, was, now) -> showFolder());
    update();
    showFolder();
  }

  private static Button button(String id, CommandId command, Commands commands) {
    Button button = Form.button(id, command.words(), () -> commands.run(command));
    button.setTooltip(new javafx.scene.control.Tooltip(command.tip()));
    return button;
  }

  private GridPane choices(Devices devices) {
    Choice<String> input = new Choice<>("recorder-input", devices.inputs(), Function.identity());
    input.valueProperty().bindBidirectional(recording.inputNameProperty());
    Choice<Background> background =
        new Choice<>("recorder-background", List.of(Background.values()), Background::words);
    background.valueProperty().bindBidirectional(recording.backgroundProperty());
    Choice<Integer> count =
        new Choice<>(
            "recorder-count",
            List.of(0, 2, 3, 4, 5),
            s -> s == 0 ? text("recorder.count.none") : text("recorder.count.s", s));
    recording.countInSecondsProperty().subscribe(s -> count.setValue(s.intValue()));
    count.setOnAction(e -> recording.countInSecondsProperty().set(count.getValue()));
    GridPane grid = new GridPane(8, 5);
    row(grid, 0, text("recorder.input"), input);
    row(grid, 1, text("recorder.background"), background);
    row(grid, 2, text("recorder.count"), count);
    return grid;
  }

  private static void row(GridPane grid, int row, String words, Choice<?> box) {
    Label name = new Label(words);
    name.getStyleClass().add("faint");
    name.setLabelFor(box);
    box.setAccessibleText(words);
    box.setMaxWidth(Double.MAX_VALUE);
    GridPane.setHgrow(box, Priority.ALWAYS);
    grid.addRow(row, name, box);
  }

  private void choose(java.util.function.Supplier<Optional<Path>> chooseFolder) {
    chooseFolder.get().ifPresent(f -> recording.files().chosenFolderProperty().set(Optional.of(f)));
    showFolder();
  }

  private void showFolder() {
    folder.setText(text("recorder.folder", recording.files().folder().getFileName()));
    folder.setTooltip(
        new javafx.scene.control.Tooltip(
            text("recorder.folder.tip", recording.files().folder().toString())));
  }

  /** Opens the input and begins to show its level. */
  public void begin() {
    recording.open();
    timer.start();
  }

  /** Ends everything that goes on. */
  public void end() {
    timer.stop();
    recording.close();
  }

  /** The text to read. */
  public ReadingPane reading() {
    return reading;
  }

  private void update() {
    Recording.State now = recording.stateProperty().get();
    boolean taking = now == Recording.State.RECORDING || now == Recording.State.RESTING;
    record.setText(text(taking ? "recorder.stop" : "recorder.record"));
    rest.setText(text(now == Recording.State.RESTING ? "recorder.goOn" : "recorder.rest"));
    rest.setDisable(!taking);
    reading.setReading(taking);
    showState(now);
  }

  private void showState(Recording.State now) {
    boolean taking = now == Recording.State.RECORDING || now == Recording.State.RESTING;
    double seconds = session.shown().seconds(recording.frames());
    state.setText(
        taking
            ? text("recorder.seconds", "%.1f".formatted(seconds))
            : text("recorder.state." + now));
  }

  private void step() {
    double db = recording.peakDb();
    shownDb = Math.max(Math.max(db, LOWEST_DB), shownDb - 0.6);
    showState(recording.stateProperty().get());
    reading.heard(db > SILENT_DB);
    draw();
  }

  private void draw() {
    Palette p = palette.get();
    GraphicsContext g = meter.getGraphicsContext2D();
    double width = meter.getWidth();
    g.setFill(p.sunken());
    g.fillRect(0, 0, width, METER_HEIGHT);
    double x = xOf(shownDb, width);
    double hot = xOf(-6, width);
    g.setFill(p.clear());
    g.fillRect(0, 3, Math.min(x, hot), METER_HEIGHT - 6);
    if (x > hot) {
      g.setFill(p.tight());
      g.fillRect(hot, 1, x - hot, METER_HEIGHT - 2);
    }
    g.setFill(p.ink());
    g.fillRect(hot, 0, 1, METER_HEIGHT);
  }

  private static double xOf(double db, double width) {
    return width * Math.clamp((db - LOWEST_DB) / -LOWEST_DB, 0, 1);
  }
}

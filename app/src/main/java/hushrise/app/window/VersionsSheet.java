package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.Safekeeping;
import hushrise.app.job.Messages;
import hushrise.app.look.Palette;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.app.widget.ProjectSketch;
import hushrise.app.words.Times;
import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.store.Versions;
import hushrise.core.store.Versions.Version;
import hushrise.core.time.Timecode;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.beans.value.ObservableValue;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.Spinner;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The versions of the project that were saved before: what each looks like, and a way back. */
final class VersionsSheet {

  private static final double SKETCH_WIDTH = 420;
  private static final double SKETCH_HEIGHT = 180;

  private final Sheet sheet;
  private final Session session;
  private final Safekeeping keeping;
  private final ObservableValue<Palette> palette;
  private final Messages messages;
  private final StackPane sketch = new StackPane();
  private final Label facts = new Label();
  private Optional<Project> looked = Optional.empty();

  VersionsSheet(
      Sheet sheet,
      Session session,
      Safekeeping keeping,
      ObservableValue<Palette> palette,
      Messages messages) {
    this.sheet = sheet;
    this.session = session;
    this.keeping = keeping;
    this.palette = palette;
    this.messages = messages;
  }

  void open() {
    if (session.file().isEmpty()) {
      messages.complain(text("versions.unsaved"));
      return;
    }
    Path file = session.file().get();
    List<Version> all = keeping.versions().of(file);
    Label words = new Label(text(all.isEmpty() ? "versions.none" : "versions.words"));
    words.setWrapText(true);
    Button go = new Button(text("versions.go"));
    go.setId("version-go");
    go.getStyleClass().add("accent");
    go.setDefaultButton(true);
    go.setDisable(all.isEmpty());
    ListView<Version> list = list(all);
    list.getSelectionModel()
        .selectedItemProperty()
        .subscribe(version -> lookAt(Optional.ofNullable(version), file, go));
    go.setOnAction(
        e -> {
          Version chosen = list.getSelectionModel().getSelectedItem();
          sheet.close();
          looked.ifPresent(project -> goBack(project, chosen));
        });
    Sheet.picks(list, go);
    facts.setWrapText(true);
    facts.setId("version-facts");
    sketch.setPrefSize(SKETCH_WIDTH, SKETCH_HEIGHT);
    VBox right = new VBox(10, sketch, facts);
    HBox.setHgrow(right, Priority.ALWAYS);
    Spinner<Integer> most = new Spinner<>(0, 1000, keeping.mostVersions());
    most.setId("versions-most");
    most.setEditable(true);
    most.setPrefWidth(90);
    most.setAccessibleText(text("versions.most"));
    most.getEditor().setAccessibleText(text("versions.most"));
    most.valueProperty().subscribe(keeping::setMostVersions);
    Label mostWords = new Label(text("versions.most"));
    mostWords.setLabelFor(most);
    Button close = Form.button("versions-close", text("sheet.close"), sheet::close);
    HBox kept = new HBox(8, mostWords, most);
    kept.setAlignment(Pos.CENTER_LEFT);
    HBox.setHgrow(kept, Priority.ALWAYS);
    HBox row = new HBox(8, kept, close, go);
    row.setAlignment(Pos.CENTER_RIGHT);
    sheet.openWide(text("versions.title"), list, words, new HBox(16, list, right), row);
    list.getSelectionModel().selectFirst();
  }

  private static ListView<Version> list(List<Version> all) {
    ListView<Version> list = new ListView<>();
    list.setId("versions");
    list.setAccessibleText(text("versions.title"));
    list.getItems().setAll(all);
    list.setPrefSize(260, SKETCH_HEIGHT + 60);
    list.setCellFactory(
        view ->
            new ListCell<>() {
              @Override
              protected void updateItem(Version version, boolean empty) {
                super.updateItem(version, empty);
                setText(empty || version == null ? null : Times.said(version.savedAt()));
              }
            });
    return list;
  }

  private void lookAt(Optional<Version> version, Path file, Button go) {
    looked = Optional.empty();
    sketch.getChildren().clear();
    facts.setText("");
    try {
      looked = version.map(v -> Versions.load(v, file));
      looked.ifPresent(project -> show(project, version.get()));
    } catch (Problem e) {
      facts.setText(e.getMessage());
    }
    go.setDisable(looked.isEmpty());
  }

  private void show(Project project, Version version) {
    sketch
        .getChildren()
        .setAll(new ProjectSketch(project, palette.getValue(), SKETCH_WIDTH, SKETCH_HEIGHT));
    facts.setText(
        text(
            "versions.facts",
            Times.said(version.savedAt()),
            Timecode.format(project.lengthFrames(), project.pictureRate(), project.sampleRate()),
            project.tracks().stream().mapToInt(t -> t.clips().size()).sum(),
            project.tracks().stream().mapToInt(t -> t.hushes().size()).sum()));
  }

  private void goBack(Project project, Version version) {
    session.replace(text("versions.edit"), project);
    messages.say(text("versions.done", Times.said(version.savedAt())));
  }
}

package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.app.look.Palette;
import hushrise.app.look.Theme;
import hushrise.app.panel.DeliverSheet;
import hushrise.app.panel.DetailPane;
import hushrise.app.panel.FileSheet;
import hushrise.app.panel.MetersPane;
import hushrise.app.panel.PassagesPane;
import hushrise.app.panel.PicturePane;
import hushrise.app.panel.Sheet;
import hushrise.app.panel.TopBar;
import hushrise.app.timeline.TimelineView;
import hushrise.app.timeline.Viewport;
import hushrise.core.Problem;
import hushrise.core.edit.Placement;
import hushrise.core.hush.HushPlanner;
import hushrise.core.hush.Passages;
import hushrise.core.make.FilmPlan;
import hushrise.core.project.Media;
import hushrise.core.project.MediaKind;
import hushrise.core.project.Project;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.Progress;
import hushrise.core.store.ProjectFile;
import hushrise.media.MediaStore;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;

/** The window: its parts in their places, and what its main actions do. */
public final class Window implements TopBar.Actions {

  private static final double BOTTOM_HEIGHT = 206;
  private static final double BOTTOM_PADDING = 8;

  private final Session session = new Session();
  private final MediaStore store;
  private final Background background = new Background(this::complain);
  private final Transport transport;
  private final Sheet sheet = new Sheet();
  private final Label status = new Label();
  private final Label output = new Label();
  private final ObjectProperty<Palette> palette = new SimpleObjectProperty<>();
  private final Viewport view;
  private final TimelineView timeline;
  private final StackPane root;
  private Theme theme;
  private String toldHint = "";

  /**
   * @param out closed together with the window
   */
  public Window(MediaStore store, AudioOutput out, Theme theme) {
    this.store = store;
    this.theme = theme;
    palette.set(theme.palette());
    transport = new Transport(session, store, background, out);
    view = new Viewport(session, store, background, palette);
    timeline = new TimelineView(view);
    BorderPane pane = new BorderPane(timeline);
    pane.setTop(new TopBar(session, transport, this));
    pane.setBottom(new VBox(bottom(), statusLine(out.name())));
    root = new StackPane(pane, sheet);
    root.getStyleClass().add("hush-rise");
    root.getStylesheets()
        .add(Window.class.getResource("/hushrise/app/window.css").toExternalForm());
    view.hintProperty().addListener((p, was, now) -> showHint(now));
    session.playheadProperty().addListener((p, was, now) -> view.reveal(now.longValue()));
    acceptDrops();
    applyTheme(theme);
  }

  private HBox bottom() {
    PicturePane picture = new PicturePane(session, background);
    double pictureWidth = (BOTTOM_HEIGHT - 2 * BOTTOM_PADDING) * 16 / 9;
    picture.setMinWidth(pictureWidth);
    picture.setMaxWidth(pictureWidth);
    DetailPane detail = new DetailPane(session);
    PassagesPane passages = new PassagesPane(session, store, background, palette);
    MetersPane meters = new MetersPane(session, transport, palette);
    meters.setMinWidth(132);
    meters.setMaxWidth(132);
    detail.setPrefWidth(320);
    passages.setPrefWidth(330);
    HBox.setHgrow(detail, Priority.ALWAYS);
    HBox.setHgrow(passages, Priority.ALWAYS);
    HBox row = new HBox(8, picture, detail, passages, meters);
    row.getStyleClass().add("bottom");
    row.setMinHeight(BOTTOM_HEIGHT);
    row.setMaxHeight(BOTTOM_HEIGHT);
    return row;
  }

  private HBox statusLine(String outputName) {
    status.setId("status");
    status.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(status, Priority.ALWAYS);
    output.setText(outputName);
    output.getStyleClass().add("faint");
    output.setMinWidth(HBox.USE_PREF_SIZE);
    HBox line = new HBox(12, status, output);
    line.getStyleClass().add("status-line");
    return line;
  }

  /** Gives the window its stage and the scene its keys. */
  public void attach(Stage stage, Scene scene) {
    stage.titleProperty().bind(titleBinding());
    stage.setOnCloseRequest(
        e -> {
          if (session.hasUnsavedChanges()) {
            e.consume();
            guard(stage::close);
          }
        });
    new Keys(this, session, transport, view, timeline, sheet).attach(scene);
  }

  private javafx.beans.binding.StringBinding titleBinding() {
    return javafx.beans.binding.Bindings.createStringBinding(
        () -> {
          String name =
              session.project().name().isBlank() ? text("untitled") : session.project().name();
          return text(session.hasUnsavedChanges() ? "title.unsaved" : "title", name);
        },
        session.projectProperty(),
        session.unsavedProperty());
  }

  public StackPane root() {
    return root;
  }

  public Session session() {
    return session;
  }

  public Transport transport() {
    return transport;
  }

  public Viewport view() {
    return view;
  }

  /** Whether anything is still being loaded or measured. */
  public boolean isBusy() {
    return background.pendingProperty().get() > 0;
  }

  /** Moves the playhead to a part of the film once it is open. */
  void seekInto(double part) {
    if (session.project().lengthFrames() > 0) {
      session.seek(Math.round(session.project().lengthFrames() * part));
      return;
    }
    session
        .projectProperty()
        .subscribe(
            p -> {
              if (session.playhead() == 0 && p.lengthFrames() > 0) {
                session.seek(Math.round(p.lengthFrames() * part));
              }
            });
  }

  /** Says something in the status line; it stays until the pointer finds something else to say. */
  public void say(String sentence) {
    status.getStyleClass().remove("complaint");
    status.setText(sentence);
  }

  /** Says what went wrong; it stays until the next thing is said. */
  public void complain(String sentence) {
    status.getStyleClass().remove("complaint");
    status.getStyleClass().add("complaint");
    status.setText(sentence);
  }

  private void showHint(String hint) {
    if (!hint.equals(toldHint)) {
      toldHint = hint;
      if (!status.getStyleClass().contains("complaint")) {
        status.setText(hint);
      }
    }
  }

  /** Shows another theme. */
  public void applyTheme(Theme now) {
    theme = now;
    theme.applyBase();
    root.setStyle(theme.palette().asCss());
    palette.set(theme.palette());
  }

  /** Opens a project file; whatever is open must have been dealt with. */
  public void open(Path file) {
    transport.stop();
    background.run(
        () -> ProjectFile.load(file),
        project -> {
          session.open(project, Optional.of(file.toAbsolutePath()));
          view.fit();
          say(text("opened", project.name()));
        });
  }

  /** Asks what to do with unsaved changes, if there are any, before going on. */
  private void guard(Runnable then) {
    if (!session.hasUnsavedChanges()) {
      then.run();
      return;
    }
    sheet.ask(
        text("unsaved.title"),
        text("unsaved.question"),
        text("unsaved.save"),
        () -> save(then),
        text("unsaved.discard"),
        then);
  }

  @Override
  public void add() {
    new FileSheet(sheet, false, "", List.of())
        .ask(text("add.title"), text("add.action"), f -> take(List.of(f)));
  }

  private void acceptDrops() {
    root.setOnDragOver(
        e -> {
          if (e.getDragboard().hasFiles()) {
            e.acceptTransferModes(TransferMode.COPY);
          }
          e.consume();
        });
    root.setOnDragDropped(this::dropped);
  }

  private void dropped(DragEvent e) {
    take(e.getDragboard().getFiles().stream().map(File::toPath).toList());
    e.setDropCompleted(true);
    e.consume();
  }

  /** Takes files into the project, one step each; a project file is opened instead. */
  public void take(List<Path> files) {
    for (Path file : files) {
      if (file.toString().endsWith(ProjectFile.ENDING)) {
        guard(() -> open(file));
        return;
      }
      say(text("taking", file.getFileName()));
      background.run(
          () -> store.take(file, MediaStore.guessKind(file), Progress.NONE), this::place);
    }
  }

  private void place(Media media) {
    String name = media.title();
    session.commit(
        text("edit.add", name),
        p -> Placement.add(p, media, media.kind() == MediaKind.MUSIC ? 0 : session.playhead()));
    say(text("took." + media.kind().name(), name));
  }

  @Override
  public void open() {
    guard(
        () ->
            new FileSheet(
                    sheet,
                    false,
                    session.file().map(Path::toString).orElse(""),
                    List.of("*" + ProjectFile.ENDING))
                .ask(text("open.title"), text("open.action"), this::open));
  }

  @Override
  public void save() {
    save(() -> {});
  }

  private void save(Runnable then) {
    if (session.file().isPresent()) {
      save(session.file().get(), then);
    } else {
      saveAs(then);
    }
  }

  void saveAs() {
    saveAs(() -> {});
  }

  private void saveAs(Runnable then) {
    String name = session.project().name().isBlank() ? text("untitled") : session.project().name();
    String suggestion =
        session
            .file()
            .map(Path::toString)
            .orElse(Path.of(System.getProperty("user.home"), name + ProjectFile.ENDING).toString());
    new FileSheet(sheet, true, suggestion, List.of("*" + ProjectFile.ENDING))
        .ask(text("save.title"), text("save.action"), file -> save(withEnding(file), then));
  }

  private static Path withEnding(Path file) {
    return file.toString().endsWith(ProjectFile.ENDING) ? file : Path.of(file + ProjectFile.ENDING);
  }

  private void save(Path file, Runnable then) {
    try {
      if (session.project().name().isBlank()) {
        String name = String.valueOf(file.getFileName()).replace(ProjectFile.ENDING, "");
        session.commit(text("edit.name"), p -> p.withName(name));
      }
      session.save(file);
      say(text("savedTo", file));
      then.run();
    } catch (Problem e) {
      complain(e.getMessage());
    }
  }

  @Override
  public void undo() {
    session.undo();
  }

  @Override
  public void redo() {
    session.redo();
  }

  @Override
  public void hush() {
    Project project = session.present();
    if (Passages.of(project).isEmpty()) {
      complain(text("hush.noVoice"));
      return;
    }
    say(text("hush.measuring"));
    background.run(
        () -> HushPlanner.withHushes(project, store, Passages.of(project), FilmPlan.SEPARATION_LU),
        hushed -> {
          if (session.present().equals(project)) {
            session.commit(text("edit.hush"), p -> hushed);
            say(text("hush.done"));
          } else {
            complain(text("hush.changed"));
          }
        });
  }

  @Override
  public void theme() {
    applyTheme(theme.other());
    theme.remember();
  }

  @Override
  public void deliver() {
    transport.stop();
    if (session.project().lengthFrames() == 0) {
      complain(text("deliver.empty"));
      return;
    }
    new DeliverSheet(sheet, session, store, background, this::say).open();
  }

  /** Gives the keys to the timeline. */
  void focusTimeline() {
    timeline.requestFocus();
  }

  /** Stops everything that runs. */
  public void close() {
    transport.close();
  }
}

package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.app.look.Palette;
import hushrise.app.look.Theme;
import hushrise.app.panel.AsideSheet;
import hushrise.app.panel.DeliverSheet;
import hushrise.app.panel.DetailPane;
import hushrise.app.panel.DraftPane;
import hushrise.app.panel.FileSheet;
import hushrise.app.panel.ItemFacts;
import hushrise.app.panel.ItemPlayer;
import hushrise.app.panel.KeysSheet;
import hushrise.app.panel.MetersPane;
import hushrise.app.panel.PicturePane;
import hushrise.app.panel.SecondEarPane;
import hushrise.app.panel.Sheet;
import hushrise.app.panel.ShelfPane;
import hushrise.app.panel.TopBar;
import hushrise.app.timeline.PeaksShelf;
import hushrise.app.timeline.PictureCuts;
import hushrise.app.timeline.TimelineView;
import hushrise.app.timeline.Viewport;
import hushrise.core.ear.Finding;
import hushrise.core.project.Clip;
import hushrise.core.sound.AudioOutput;
import hushrise.core.store.ProjectFile;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.PictureScan;
import hushrise.media.SongStore;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.beans.binding.StringBinding;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;

/** The window: its parts in their places, and what its main actions do. */
public final class Window implements TopBar.Actions {

  private final MediaStore store;
  private final Background background = new Background(this::complain);
  private final Session session;
  private final Transport transport;
  private final Sheet sheet = new Sheet();
  private final StatusLine status = new StatusLine(background);
  private final ObjectProperty<Palette> palette = new SimpleObjectProperty<>();
  private final Hearing hearing;
  private final SpeechWatch watch;
  private final Drafting drafting;
  private final EarCommands ear;
  private final Viewport view;
  private final TimelineView timeline;
  private final DetailPane detail;
  private final ShelfPane shelf;
  private final Intake intake;
  private final ProjectActions projects;
  private final Commands commands;
  private final BorderPane pane;
  private final StackPane root;
  private Theme theme;

  /**
   * @param cache where decoded sound and what was found out about files is kept
   * @param out closed together with the window
   */
  public Window(CacheFolder cache, AudioOutput out, Theme theme) {
    this.store = new MediaStore(cache);
    this.theme = theme;
    palette.set(theme.palette());
    SongStore songs = new SongStore(store, cache);
    session = new Session(songs, this::complain);
    transport = new Transport(session, store, background, out);
    PictureCuts cuts = new PictureCuts(session, new PictureScan(store, cache), background);
    PeaksShelf peaks = new PeaksShelf(store, background);
    hearing = new Hearing(session, store, background);
    watch = new SpeechWatch(session, new SpeechStore(store, cache), background, this::say);
    drafting = new Drafting(session, store, hearing, background, this);
    ear = new EarCommands(session, hearing, this);
    view = new Viewport(session, store, background, cuts, hearing, palette);
    timeline = new TimelineView(view, peaks);
    intake = new Intake(session, store, songs, background, this::say);
    projects = new ProjectActions(session, sheet, background, this::say, this::opened);
    detail = new DetailPane(session, hearing);
    ItemFacts facts = new ItemFacts(store, background);
    shelf =
        new ShelfPane(
            session,
            new ItemPlayer(session, transport, peaks, facts, palette, intake::place),
            facts,
            new ShelfActions(session, intake, this));
    pane = new BorderPane(timeline);
    pane.setTop(new TopBar(session, transport, this));
    pane.setBottom(
        new VBox(
            new BottomRow(
                session,
                new PicturePane(session, background),
                detail,
                new SecondEarPane(session, hearing, ear, palette, this::askAside),
                new DraftPane(session, drafting),
                new MetersPane(session, transport, palette)),
            status));
    status.setOutput(out.name());
    root = new StackPane(pane, sheet);
    root.getStyleClass().add("hush-rise");
    root.getStylesheets()
        .add(Window.class.getResource("/hushrise/app/window.css").toExternalForm());
    view.hintProperty().addListener((p, was, now) -> status.hint(now));
    session
        .playheadProperty()
        .addListener(
            (p, was, now) -> {
              if (!transport.playingProperty().get() || session.followsPlayheadProperty().get()) {
                view.reveal(now.longValue());
              }
            });
    commands = new Commands(allCommands());
    view.setCommands(commands);
    detail.setCommands(commands);
    new Drops(shelf, this::take).attach(root);
    giveKeysBack();
    applyTheme(theme);
  }

  private List<Command> allCommands() {
    List<Command> all = new ArrayList<>();
    all.addAll(new TravelCommands(session, transport, view, this).all());
    LevelCommands levels = new LevelCommands(session, this);
    FitCommands fits = new FitCommands(session, transport, this);
    all.addAll(new ClipCommands(session, this, levels, fits).all());
    all.addAll(new FadeCommands(session, view, this).all());
    all.addAll(fits.all());
    all.addAll(levels.all());
    all.addAll(new ShapeCommands(session, store, hearing, background, this).all());
    all.addAll(new SpeechCommands(session, store, watch, hearing, sheet, this).all());
    all.addAll(drafting.all());
    all.addAll(ear.all());
    all.addAll(
        List.of(
            Command.of("undo", "Shortcut+Z", this::undo),
            Command.of("redo", "Shortcut+Shift+Z", this::redo),
            Command.of("redoToo", "Shortcut+Y", this::redo),
            Command.of("save", "Shortcut+S", this::save),
            Command.of("saveAs", "Shortcut+Shift+S", () -> projects.saveAs(() -> {})),
            Command.of("open", "Shortcut+O", this::open),
            Command.of("add", "Shortcut+I", this::add),
            Command.of("deliver", "Shortcut+D", this::deliver),
            Command.of("shelf", "L", this::shelf),
            Command.of("keys", "F1", () -> KeysSheet.open(sheet, commands())),
            Command.of(
                "escape",
                "ESCAPE",
                () -> {
                  if (session.draft().isPresent()) {
                    drafting.leave();
                  } else if (!timeline.cancelDrag()) {
                    session.select(Selection.nothing());
                  }
                })));
    return all;
  }

  private Commands commands() {
    return commands;
  }

  /** A button that was pressed with the mouse gives the keys back to the timeline. */
  private void giveKeysBack() {
    root.addEventHandler(
        MouseEvent.MOUSE_RELEASED,
        e ->
            Platform.runLater(
                () -> {
                  Node owner = root.getScene() == null ? null : root.getScene().getFocusOwner();
                  if (owner instanceof ButtonBase && !sheet.isOpen()) {
                    timeline.requestFocus();
                  }
                }));
  }

  /** Gives the window its stage and the scene its keys. */
  public void attach(Stage stage, Scene scene) {
    scene.fillProperty().bind(palette.map(Palette::background));
    stage.titleProperty().bind(titleBinding());
    stage.setOnCloseRequest(
        e -> {
          if (session.hasUnsavedChanges()) {
            e.consume();
            projects.guard(stage::close);
          }
        });
    commands.attach(scene, sheet::isOpen, timeline::requestFocus, shelf::hasKeys);
    new Compare(session, this).attach(stage, scene);
  }

  private StringBinding titleBinding() {
    return Bindings.createStringBinding(
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

  /** What is heard of the project. */
  public Hearing hearing() {
    return hearing;
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

  /** Says something in the status line. */
  public void say(String sentence) {
    status.say(sentence);
  }

  /** Says what went wrong. */
  public void complain(String sentence) {
    status.complain(sentence);
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
    projects.open(file);
  }

  private void opened() {
    hearing.forget();
    view.fit();
    intake.listenToAll();
  }

  @Override
  public void add() {
    askForFiles(true);
  }

  /** Asks for files to take: into the film, or onto the Shelf alone. */
  void askForFiles(boolean places) {
    new FileSheet(sheet, false, "", List.of())
        .ask(
            text(places ? "add.title" : "add.toShelf"),
            text("add.action"),
            f -> take(List.of(f), places));
  }

  /** Takes files and folders into the project; a project file is opened instead. */
  public void take(List<Path> files, boolean places) {
    for (Path file : files) {
      if (file.toString().endsWith(ProjectFile.ENDING)) {
        projects.guard(() -> open(file));
        return;
      }
    }
    intake.take(files, places);
  }

  /** Goes on once a clip's song has been listened to. */
  void withSong(Clip clip, Runnable then) {
    intake.listen(session.project().media(clip.mediaId()).orElseThrow(), then);
  }

  @Override
  public void open() {
    projects.open();
  }

  @Override
  public void save() {
    projects.save(() -> {});
  }

  /** Opens the Shelf, or gives it the keys. */
  @Override
  public void shelf() {
    if (pane.getRight() == null) {
      pane.setRight(shelf);
    }
    Platform.runLater(shelf::takeKeys);
  }

  /** Opens or closes the Shelf. */
  @Override
  public void toggleShelf() {
    if (pane.getRight() == null) {
      shelf();
    } else {
      pane.setRight(null);
      timeline.requestFocus();
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
    drafting.start();
  }

  /** Asks why a finding is put aside. */
  void askAside(Finding finding) {
    AsideSheet.open(sheet, EarCommands.words(finding), why -> ear.putAside(finding, why));
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

  /** Does what a command of a name does. */
  void run(String command) {
    commands.named(command).action().run();
  }

  /** Gives the keys to the timeline. */
  void focusTimeline() {
    timeline.requestFocus();
  }

  /** Stops everything that runs. */
  public void close() {
    hearing.close();
    transport.close();
  }
}

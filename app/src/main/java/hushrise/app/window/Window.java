package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.ClipCommands;
import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.command.DraftCommands;
import hushrise.app.command.EarCommands;
import hushrise.app.command.FadeCommands;
import hushrise.app.command.FitCommands;
import hushrise.app.command.LevelCommands;
import hushrise.app.command.ListenCommands;
import hushrise.app.command.Possible;
import hushrise.app.command.RecordCommands;
import hushrise.app.command.RideCommands;
import hushrise.app.command.SafeCommands;
import hushrise.app.command.ShapeCommands;
import hushrise.app.command.SpeechCommands;
import hushrise.app.command.TravelCommands;
import hushrise.app.file.Exports;
import hushrise.app.file.FileChoice;
import hushrise.app.file.Intake;
import hushrise.app.file.LostFiles;
import hushrise.app.file.ProjectFiles;
import hushrise.app.file.Safekeeping;
import hushrise.app.job.Calm;
import hushrise.app.job.Jobs;
import hushrise.app.listen.Drafting;
import hushrise.app.listen.FileWatch;
import hushrise.app.listen.Hearing;
import hushrise.app.look.Palette;
import hushrise.app.look.Theme;
import hushrise.app.panel.DetailPane;
import hushrise.app.panel.DraftPane;
import hushrise.app.panel.ItemPlayer;
import hushrise.app.panel.MixPane;
import hushrise.app.panel.PicturePane;
import hushrise.app.panel.RecorderPane;
import hushrise.app.panel.SecondEarPane;
import hushrise.app.panel.ShelfPane;
import hushrise.app.panel.StartPane;
import hushrise.app.play.Meters;
import hushrise.app.play.SurfaceRides;
import hushrise.app.play.Transport;
import hushrise.app.play.TransportState;
import hushrise.app.record.Recording;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.timeline.Desk;
import hushrise.app.timeline.TimelineView;
import hushrise.app.timeline.Viewport;
import hushrise.core.ear.Finding;
import hushrise.core.journal.Recovered;
import hushrise.core.project.Project;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.Devices;
import hushrise.core.store.ProjectFile;
import hushrise.media.CacheFolder;
import hushrise.media.FfmpegStretch;
import hushrise.media.MediaStore;
import hushrise.media.Presets;
import hushrise.media.SongStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.beans.binding.StringBinding;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Scene;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import javafx.stage.WindowEvent;

/** The window: its parts in their places, and what concerns them all. */
public final class Window {

  private final StatusLine status = new StatusLine();
  private final Jobs jobs = new Jobs(status);
  private final Sheet sheet = new Sheet();
  private final ObjectProperty<Palette> palette = new SimpleObjectProperty<>();
  private final FileChoice choice;
  private final Devices devices;
  private final Session session;
  private final Transport transport;
  private final Meters meters;
  private final Listeners heard;
  private final Drafting drafting;
  private final EarCommands ear;
  private final Viewport view;
  private final PicturePane picture;
  private final StartPane start;
  private final TimelineView timeline;
  private final DetailPane detail;
  private final ShelfPane shelf;
  private final Intake intake;
  private final FitCommands fits;
  private final ProjectFiles projects;
  private final Safekeeping keeping;
  private final Diagnostics diagnostics;
  private final LostFiles lost;
  private final Exports exports;
  private final ExportSheet export;
  private final CommandFinder finder;
  private final Recording recording;
  private final SurfaceRides surface;
  private final RecorderPane recorder;
  private final Compare compare;
  private final HearAlone alone;
  private final Commands commands;
  private final BorderPane pane = new BorderPane();
  private final SidePanes side;
  private final StackPane root;
  private final Optional<Path> demo =
      Optional.ofNullable(System.getProperty("hushrise.demo"))
          .map(Path::of)
          .filter(Files::isRegularFile);
  private Theme theme;

  /**
   * @param cache where decoded sound and what was found out about files is kept
   * @param devices what sound is played through
   * @param choice lets the person choose files
   * @param work where journals and earlier versions are kept
   */
  public Window(CacheFolder cache, Devices devices, Theme theme, FileChoice choice, Path work) {
    this.theme = theme;
    this.choice = choice;
    this.devices = devices;
    palette.set(theme.palette());
    status.showJobs(jobs);
    MediaStore store = new MediaStore(cache);
    SongStore songs = new SongStore(store, cache);
    session = new Session(songs, status, this::elsewhere);
    keeping =
        new Safekeeping(
            work,
            folder -> Platform.runLater(() -> status.complain(text("journal.unwritable", folder))));
    session.keepIn(keeping.journal());
    diagnostics = new Diagnostics(work.resolve("log"), session);
    AudioOutput out = devices.usualOutput(Project.DEFAULT_SAMPLE_RATE);
    transport =
        new Transport(
            session,
            store,
            jobs,
            status,
            out,
            () -> devices.standIn(Project.DEFAULT_SAMPLE_RATE),
            FfmpegStretch::new);
    transport.outputNameProperty().subscribe(status::setOutput);
    meters = new Meters(transport, session::shown);
    Calm calm = new Calm();
    session.shownProperty().addListener(p -> calm.moved());
    picture = new PicturePane(session, jobs);
    heard = new Listeners(session, store, cache, jobs, status, calm, picture::forget);
    Hearing hearing = heard.hearing();
    drafting = new Drafting(session, hearing, jobs, status);
    view =
        new Viewport(
            session, status, heard.cuts(), hearing, heard.files().missingProperty(), palette);
    view.axisProperty().addListener(p -> calm.moved());
    ear = new EarCommands(session, hearing, view::reveal, this::askAside, status);
    intake = new Intake(session, store, songs, jobs, status);
    projects = new ProjectFiles(session, choice, sheet, jobs, status, keeping, this::opened);
    lost = new LostFiles(session, store, choice, heard.files(), jobs, status);
    exports = new Exports(store, jobs, status);
    export =
        new ExportSheet(
            sheet,
            session,
            choice,
            exports,
            Presets.ofUser(),
            () -> heard.measure().nowProperty().get(),
            status);
    compare = new Compare(session, status);
    alone = new HearAlone(session, transport, status);
    start = new StartPane(choice, intake::takeAs, this::openGuarded);
    timeline =
        new TimelineView(view, new Desk(transport, meters), heard.peaks(), heard.stills(), start);
    side = new SidePanes(pane, timeline::requestFocus);
    detail = new DetailPane(session, hearing, transport.riders());
    finder = new CommandFinder(timeline::requestFocus);
    fits = new FitCommands(session, transport, intake, heard.cuts(), status);
    shelf =
        new ShelfPane(
            session,
            new ItemPlayer(
                session, transport, heard.peaks(), heard.facts(), palette, intake::place),
            heard.facts(),
            new ShelfActions(
                session,
                intake,
                choice,
                status,
                fits::startAt,
                timeline::requestFocus,
                side::close));
    recording = new Recording(session, transport, devices, store, jobs, status, drafting::start);
    surface = new SurfaceRides(session, transport.riders(), status);
    commands = commands();
    recorder =
        new RecorderPane(
            session,
            recording,
            devices,
            commands,
            palette,
            () -> choice.folder(FileChoice.Kind.TAKES, text("recorder.folder.title")));
    finder.setCommands(commands);
    view.setCommands(commands);
    detail.setCommands(commands);
    pane.setCenter(timeline);
    pane.setTop(
        new VBox(CommandMenus.of(commands), new TopBar(session, transport, commands, finder)));
    pane.setBottom(new VBox(bottom(), status));
    root = new StackPane(pane, sheet);
    root.getStyleClass().add("hush-rise");
    root.getStylesheets()
        .add(Window.class.getResource("/hushrise/app/window.css").toExternalForm());
    new Drops(shelf, this::take).attach(root);
    view.hintProperty().addListener((p, was, now) -> status.hint(now));
    session.playheadProperty().addListener((p, was, now) -> reveal(now.longValue()));
    showStart();
    applyTheme(theme);
  }

  private BottomRow bottom() {
    return new BottomRow(
        session,
        picture,
        detail,
        new SecondEarPane(
            session,
            heard.hearing(),
            ear,
            palette,
            this::askAside,
            () -> run(CommandId.CREDITS),
            () -> run(CommandId.FIND_FILES),
            heard.files().missingProperty(),
            jobs),
        new DraftPane(session, drafting),
        new MixPane(session, transport, meters, heard.measure(), heard.hearing(), palette));
  }

  private Commands commands() {
    Commands.Builder table = new Commands.Builder();
    Hearing hearing = heard.hearing();
    new TravelCommands(session, view, heard.cuts(), status).addTo(table);
    new ListenCommands(session, transport, meters, status).addTo(table);
    LevelCommands levels = new LevelCommands(session, transport.riders(), status);
    new RideCommands(session, transport.riders(), levels, status).addTo(table);
    SafeCommands safe = new SafeCommands(session, hearing, jobs, status);
    safe.addTo(table);
    fits.addTo(table);
    levels.addTo(table);
    new ClipCommands(session, status, levels, fits).addTo(table);
    new FadeCommands(session, heard.cuts(), status).addTo(table);
    new ShapeCommands(session, hearing, heard.cuts(), jobs, status).addTo(table);
    new SpeechCommands(session, heard.speech(), hearing, choice, status).addTo(table);
    new DraftCommands(drafting).addTo(table);
    new RecordCommands(
            recording, this::record, by -> recorderPane().reading().move(by), surface, levels)
        .addTo(table);
    ear.addTo(table);
    return table
        .set(CommandId.NEW, projects::begin)
        .set(CommandId.OPEN, projects::open)
        .set(CommandId.OPEN_DEMO, this::openDemo)
        .set(CommandId.SAVE, () -> projects.save(() -> {}))
        .set(CommandId.SAVE_AS, () -> projects.saveAs(() -> {}))
        .set(CommandId.ADD, this::add)
        .set(CommandId.SHELF, this::shelf)
        .set(CommandId.EXPORT, this::export)
        .set(
            CommandId.VERSIONS,
            () -> new VersionsSheet(sheet, session, keeping, palette, status).open())
        .set(CommandId.FIND_FILES, lost::find)
        .set(CommandId.COLLECT, projects::collect)
        .set(CommandId.CREDITS, () -> new CreditsEditor(sheet, session, choice, status).open())
        .set(CommandId.QUIT, this::quit)
        .set(CommandId.UNDO, session::undo)
        .set(CommandId.REDO, session::redo)
        .set(CommandId.FIND_COMMAND, finder::begin)
        .set(CommandId.TYPE_LEVEL, () -> detail.typeLevel(false))
        .set(CommandId.ESCAPE, this::escape)
        .set(CommandId.THEME, this::switchTheme)
        .set(CommandId.COMPARE_SHAPES, () -> compare.toggle(CommandId.COMPARE_SHAPES))
        .set(CommandId.COMPARE_LINE, () -> compare.toggle(CommandId.COMPARE_LINE))
        .set(CommandId.RECORDER, this::toggleRecorder)
        .set(CommandId.SURFACE, () -> SurfaceSheet.open(sheet, devices, surface))
        .set(CommandId.HEAR_ALONE, alone::toggle)
        .set(CommandId.HEADS_NARROW, view::narrowHeads)
        .set(CommandId.OUTPUT_CHOOSE, () -> OutputSheet.open(sheet, devices, transport, status))
        .set(CommandId.SAFE_NUMBERS, () -> SafeSheet.open(sheet, safe.ruleProperty(), session))
        .set(CommandId.KEYS, () -> KeysSheet.open(sheet))
        .set(CommandId.REPORT, this::copyReport)
        .build(
            new Possible(
                session,
                () -> !ear.open().isEmpty(),
                () -> transport.stateProperty().get() instanceof TransportState.Riding));
  }

  private void elsewhere(Runnable work, Runnable then) {
    jobs.run(
        () -> {
          work.run();
          return true;
        },
        done -> then.run(),
        then);
  }

  /** Gives the window its stage and the scene its keys. */
  public void attach(Stage stage, Scene scene) {
    scene.fillProperty().bind(palette.map(Palette::background));
    stage.titleProperty().bind(titleBinding());
    stage.setOnCloseRequest(
        e -> {
          e.consume();
          guard(stage::hide);
        });
    HeldKeys held = new HeldKeys();
    compare.addTo(held);
    alone.addTo(held);
    held.attach(stage, scene);
    new Keys(scene, commands, timeline, sheet::isOpen, shelf::hasKeys, e -> detail.beginsTyping(e))
        .attach(stage);
    Thread.currentThread()
        .setUncaughtExceptionHandler(
            (thread, e) -> {
              org.slf4j.LoggerFactory.getLogger(Window.class).error("The window failed", e);
              status.complain(text("failed", String.valueOf(e.getMessage())));
            });
  }

  /** Asks about what would be lost, then goes on. */
  private void guard(Runnable then) {
    if (exports.isRunning()) {
      sheet.ask(
          text("closing.title"),
          text("closing.question"),
          text("closing.answer"),
          () -> {
            exports.cancel();
            projects.guard(then);
          });
    } else {
      projects.guard(then);
    }
  }

  private StringBinding titleBinding() {
    return Bindings.createStringBinding(
        () -> {
          String name = hushrise.app.file.FileNames.nameOf(session.present());
          return text(session.hasUnsavedChanges() ? "title.unsaved" : "title", name);
        },
        session.presentProperty(),
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
    return heard.hearing();
  }

  /** How loud everything is that sounds. */
  Meters meters() {
    return meters;
  }

  Recording recording() {
    return recording;
  }

  RecorderPane recorderPane() {
    return recorder;
  }

  public Viewport view() {
    return view;
  }

  /** What notices files that are written anew. */
  FileWatch files() {
    return heard.files();
  }

  Jobs jobs() {
    return jobs;
  }

  /** Whether anything is still being loaded or measured. */
  public boolean isBusy() {
    return jobs.pendingProperty().get() > 0;
  }

  private void reveal(long frame) {
    if (!transport.playingProperty().get() || session.followsPlayheadProperty().get()) {
      view.reveal(frame);
    }
  }

  /** Moves the playhead to a part of the film once it is open. */
  void seekInto(double part) {
    if (session.shown().lengthFrames() > 0) {
      session.seek(Math.round(session.shown().lengthFrames() * part));
      return;
    }
    session
        .shownProperty()
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

  private void switchTheme() {
    applyTheme(theme.other());
    theme.remember();
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

  private void openGuarded(Path file) {
    projects.guard(() -> open(file));
  }

  private void openDemo() {
    demo.ifPresentOrElse(this::openGuarded, () -> status.complain(text("demo.missing")));
  }

  private void opened() {
    transport.stop();
    heard.forget();
    view.fit();
    intake.listenToAll();
    heard.files().look();
    showStart();
  }

  private void showStart() {
    start.show(projects.recent().all(), demo.isPresent(), this::openDemo);
  }

  private void add() {
    take(choice.toRead(FileChoice.Kind.MEDIA, text("add.title"), true), true);
  }

  /** Takes files and folders into the project; a project file is opened instead. */
  public void take(List<Path> chosen, boolean places) {
    Optional<Path> project =
        chosen.stream().filter(f -> f.toString().endsWith(ProjectFile.ENDING)).findFirst();
    project.ifPresentOrElse(this::openGuarded, () -> intake.take(chosen, places));
  }

  /** Opens the recorder in the Shelf's place, or closes it. */
  private void toggleRecorder() {
    side.toggle(recorder, recorder::begin, recorder::end);
  }

  private void record() {
    if (!side.shows(recorder)) {
      toggleRecorder();
    }
    recording.toggle();
  }

  /** Opens the Shelf and gives it the keys, or closes it. */
  void shelf() {
    side.toggle(shelf, () -> Platform.runLater(shelf::takeKeys), () -> {});
  }

  private void escape() {
    if (session.isComparing()) {
      session.endComparison();
    } else if (timeline.cancelDrag()) {
      status.say(text("drag.givenBack"));
    } else if (session.draft().isPresent()) {
      drafting.leave();
    } else {
      session.select(Selection.nothing());
    }
  }

  /** Asks why a finding is put aside. */
  private void askAside(Finding finding) {
    AsideSheet.open(sheet, EarCommands.words(finding), why -> ear.putAside(finding, why));
  }

  private void export() {
    transport.stop();
    if (session.present().lengthFrames() == 0) {
      status.complain(text("export.empty"));
    } else {
      export.open();
    }
  }

  private void quit() {
    javafx.stage.Window stage = root.getScene().getWindow();
    stage.fireEvent(new WindowEvent(stage, WindowEvent.WINDOW_CLOSE_REQUEST));
  }

  /** Writes what is logged to disk too. */
  void keepLog() {
    diagnostics.keepLog();
  }

  private void copyReport() {
    ClipboardContent content = new ClipboardContent();
    content.putString(diagnostics.report());
    Clipboard.getSystemClipboard().setContent(content);
    status.say(text("report.done"));
  }

  /** Offers what a crash has left, if it has left anything. */
  void offerWhatWasLeft() {
    jobs.run(
        () -> keeping.journals().left(),
        left -> {
          if (!left.isEmpty()) {
            offer(left);
          }
        });
  }

  /** Offers to go on with what was left. */
  void offer(List<Recovered> left) {
    new RecoverySheet(sheet, keeping.journals(), palette, projects::goOn).open(left);
  }

  /** What keeps work from being lost. */
  Safekeeping keeping() {
    return keeping;
  }

  /** Does what a command does. */
  public void run(CommandId command) {
    commands.run(command);
  }

  /** Closes the sheet that is open. */
  void closeSheet() {
    sheet.close();
  }

  /** Gives the keys to the timeline. */
  public void focusTimeline() {
    timeline.requestFocus();
  }

  /** Stops everything that runs. */
  public void close() {
    exports.close();
    jobs.cancelAll();
    heard.close();
    picture.close();
    recording.close();
    surface.close();
    transport.close();
    keeping.close();
  }
}

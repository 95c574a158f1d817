package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.command.EarCommands;
import hushrise.app.command.Possible;
import hushrise.app.command.RecordCommands;
import hushrise.app.file.FileChoice;
import hushrise.app.file.Intake;
import hushrise.app.file.LostFiles;
import hushrise.app.file.Safekeeping;
import hushrise.app.job.Jobs;
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
import hushrise.app.play.Meters;
import hushrise.app.play.Transport;
import hushrise.app.play.TransportState;
import hushrise.app.record.Recording;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.timeline.Desk;
import hushrise.app.timeline.TimelineView;
import hushrise.app.timeline.Viewport;
import hushrise.app.widget.OneButton;
import hushrise.app.widget.Refused;
import hushrise.core.ear.Finding;
import hushrise.core.journal.Recovered;
import hushrise.core.sound.Devices;
import hushrise.media.CacheFolder;
import hushrise.media.Presets;
import java.nio.file.Path;
import java.util.List;
import java.util.prefs.Preferences;
import javafx.application.Platform;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Scene;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The window: its parts in their places, and what concerns them all. */
public final class Window {

  private static final Logger LOG = LoggerFactory.getLogger(Window.class);

  private final StatusLine status = new StatusLine();
  private final Jobs jobs = new Jobs(status);
  private final Sheet sheet = new Sheet();
  private final ObjectProperty<Palette> palette = new SimpleObjectProperty<>();
  private final FileChoice choice;
  private final Devices devices;
  private final Backstage backstage;
  private final Session session;
  private final Transport transport;
  private final Listeners heard;
  private final Opening opening;
  private final Closing closing;
  private final CommandSets sets;
  private final Viewport view;
  private final PicturePane picture;
  private final TimelineView timeline;
  private final DetailPane detail;
  private final BottomRow bottom;
  private final ShelfPane shelf;
  private final Diagnostics diagnostics;
  private final LostFiles lost;
  private final ExportSheet export;
  private final CommandFinder finder;
  private final RecorderPane recorder;
  private final Compare compare;
  private final HearAlone alone;
  private final Commands commands;
  private final BorderPane pane = new BorderPane();
  private final SidePanes side;
  private final StackPane root;
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
    backstage = Backstage.open(cache, devices, work, jobs, status);
    session = backstage.session();
    heard = backstage.heard();
    transport = backstage.transport();
    Intake intake = backstage.intake();
    Hearing hearing = heard.hearing();
    transport.loudspeaker().outputNameProperty().subscribe(status::setOutput);
    diagnostics = new Diagnostics(work.resolve("log"), session);
    picture = new PicturePane(session, jobs);
    heard.setAlsoForgets(picture::forget);
    view =
        new Viewport(
            session, status, heard.cuts(), hearing, heard.files().missingProperty(), palette);
    view.axisProperty().addListener(p -> backstage.calm().moved());
    sets = new CommandSets(backstage, view, choice, sheet, this::askAside, status);
    opening = new Opening(backstage, choice, sheet, status, view);
    closing = new Closing(session, backstage.exports(), opening.projects(), sheet);
    lost = new LostFiles(session, backstage.store(), choice, heard.files(), jobs, status);
    export =
        new ExportSheet(
            sheet,
            session,
            choice,
            backstage.exports(),
            jobs,
            Presets.ofUser(),
            () -> heard.measure().nowProperty().get(),
            status);
    compare = new Compare(session, status);
    alone = new HearAlone(session, transport, status);
    timeline =
        new TimelineView(
            view, new Desk(transport, meters()), heard.peaks(), heard.stills(), opening.start());
    side = new SidePanes(pane, timeline::requestFocus);
    detail = new DetailPane(session, hearing, transport.riders());
    finder = new CommandFinder(timeline::requestFocus);
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
                sets.fits()::startAt,
                timeline::requestFocus,
                side::close));
    commands = commands();
    recorder =
        new RecorderPane(
            session,
            backstage.recording(),
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
    bottom = bottom();
    pane.setBottom(new VBox(bottom, status));
    root = new StackPane(pane, sheet);
    root.getStyleClass().add("hush-rise");
    root.getStylesheets()
        .add(Window.class.getResource("/hushrise/app/window.css").toExternalForm());
    new Drops(shelf, sheet::isOpen, opening::take).attach(root);
    view.hintProperty().addListener((p, was, now) -> status.hint(now));
    session.playheadProperty().addListener((p, was, now) -> reveal(now.longValue()));
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
            sets.ear(),
            palette,
            this::askAside,
            () -> run(CommandId.CREDITS),
            () -> run(CommandId.FIND_FILES),
            heard.files().missingProperty(),
            jobs),
        new DraftPane(session, backstage.drafting()),
        new MixPane(session, transport, meters(), heard.measure(), heard.hearing(), palette));
  }

  private Commands commands() {
    Commands.Builder table = new Commands.Builder();
    sets.addTo(table);
    opening.addTo(table);
    compare.addTo(table);
    new RecordCommands(
            recording(),
            this::record,
            by -> recorder.reading().move(by),
            backstage.surface(),
            sets.levels())
        .addTo(table);
    return table
        .set(CommandId.SHELF, this::shelf)
        .set(CommandId.EXPORT, this::export)
        .set(
            CommandId.VERSIONS,
            () -> new VersionsSheet(sheet, session, keeping(), palette, status).open())
        .set(CommandId.FIND_FILES, lost::find)
        .set(
            CommandId.CREDITS, () -> new CreditsEditor(sheet, session, choice, jobs, status).open())
        .set(CommandId.QUIT, closing::quit)
        .set(CommandId.FIND_COMMAND, finder::begin)
        .set(CommandId.TYPE_LEVEL, () -> detail.typeLevel(false))
        .set(CommandId.ESCAPE, this::escape)
        .set(CommandId.THEME, this::switchTheme)
        .set(CommandId.RECORDER, this::toggleRecorder)
        .set(CommandId.SURFACE, () -> SurfaceSheet.open(sheet, devices, backstage.surface()))
        .set(CommandId.HEAR_ALONE, alone::toggle)
        .set(CommandId.HEADS_NARROW, view::narrowHeads)
        .set(CommandId.PICTURE_SIZE, () -> bottom.enlarge())
        .set(
            CommandId.OUTPUT_CHOOSE,
            () -> OutputSheet.open(sheet, devices, transport.loudspeaker(), status))
        .set(
            CommandId.SAFE_NUMBERS,
            () -> SafeSheet.open(sheet, sets.safe().ruleProperty(), session))
        .set(CommandId.KEYS, () -> KeysSheet.open(sheet))
        .set(CommandId.REPORT, this::copyReport)
        .build(
            new Possible(
                session,
                () -> !sets.ear().open().isEmpty(),
                () -> transport.stateProperty().get() instanceof TransportState.Riding),
            status::say);
  }

  /** Gives the window its stage and the scene its keys. */
  public void attach(Stage stage, Scene scene) {
    scene.fillProperty().bind(palette.map(Palette::background));
    scene.addEventHandler(Refused.TYPE, e -> status.complain(said(e)));
    scene.addEventHandler(Refused.OVER, e -> status.takeBack(said(e)));
    closing.attach(stage);
    OneButton.of(scene);
    HeldKeys held = new HeldKeys();
    compare.addTo(held);
    alone.addTo(held);
    held.attach(scene);
    new Keys(scene, commands, timeline, sheet::isOpen, shelf::hasKeys, e -> detail.beginsTyping(e))
        .attach();
    Thread.currentThread()
        .setUncaughtExceptionHandler(
            (thread, e) -> {
              LOG.error("The window failed", e);
              status.complain(text("failed", String.valueOf(e.getMessage())));
            });
  }

  private static String said(Refused refused) {
    return text("refused", refused.typed(), refused.takes());
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
    return backstage.meters();
  }

  Recording recording() {
    return backstage.recording();
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
    if (!transport.playingProperty().get() || session.habits().followsPlayheadProperty().get()) {
      view.reveal(frame);
    }
  }

  /** Moves the playhead to a part of the film once it is open. */
  void seekInto(double part) {
    opening.seekInto(part);
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
    opening.open(file);
  }

  /** Takes files and folders into the project; a project file is opened instead. */
  public void take(List<Path> chosen, boolean places) {
    opening.take(chosen, places);
  }

  /** Opens the recorder in the Shelf's place, or closes it. */
  private void toggleRecorder() {
    side.toggle(recorder, recorder::begin, recorder::end);
  }

  private void record() {
    if (!side.shows(recorder)) {
      toggleRecorder();
    }
    recording().toggle();
  }

  /** Opens the Shelf and gives it the keys, or closes it. */
  void shelf() {
    side.toggle(shelf, () -> Platform.runLater(shelf::takeKeys), () -> {});
  }

  private void escape() {
    if (session.isComparing()) {
      session.endComparison();
    } else if (timeline.cancelDrag() || bottom.cancelDrag()) {
      status.say(text("drag.givenBack"));
    } else if (session.draft().isPresent()) {
      backstage.drafting().leave();
    } else {
      session.select(Selection.nothing());
    }
  }

  /** Asks why a finding is put aside. */
  private void askAside(Finding finding) {
    AsideSheet.open(sheet, EarCommands.words(finding), why -> sets.ear().putAside(finding, why));
  }

  private void export() {
    transport.stop();
    export.open();
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
    opening.offerWhatWasLeft(palette);
  }

  /** Offers to go on with what was left. */
  void offer(List<Recovered> left) {
    opening.offer(left, palette);
  }

  /** What keeps work from being lost. */
  Safekeeping keeping() {
    return backstage.keeping();
  }

  /** Does what a command does. */
  public void run(CommandId command) {
    commands.run(command);
  }

  /** Closes all sheets that are open. */
  void closeSheet() {
    while (sheet.isOpen()) {
      sheet.close();
    }
  }

  /** How high the row under the timeline was made; 0: as high as the window asks for. */
  DoubleProperty bottomHeightProperty() {
    return bottom.chosenHeightProperty();
  }

  /** What a person sets that is to be there the next time, but for its place on the screen. */
  Remembered remembered(Preferences preferences) {
    return new Remembered(preferences)
        .habits(session.habits())
        .heads(view)
        .safeLevels(sets.safe().ruleProperty())
        .rides(transport.riders().ruleProperty())
        .recorder(recording(), devices)
        .output(transport.loudspeaker(), devices)
        .surface(backstage.surface(), devices);
  }

  /** Gives the keys to the timeline. */
  public void focusTimeline() {
    timeline.requestFocus();
  }

  /** Stops everything that runs. */
  public void close() {
    picture.close();
    backstage.close();
    recorder.end();
  }
}

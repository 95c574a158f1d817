package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.file.FileChoice;
import hushrise.app.file.ProjectFiles;
import hushrise.app.job.Messages;
import hushrise.app.look.Palette;
import hushrise.app.panel.StartPane;
import hushrise.app.session.Session;
import hushrise.app.timeline.Viewport;
import hushrise.app.widget.Takes;
import hushrise.core.exchange.Otio;
import hushrise.core.journal.Recovered;
import hushrise.core.project.media.MediaKind;
import hushrise.core.store.CollectedZip;
import hushrise.core.store.ProjectFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.beans.value.ObservableValue;

/** Opens projects, takes files in, and offers what a crash has left. */
final class Opening {

  private final Backstage backstage;
  private final Session session;
  private final FileChoice choice;
  private final Sheet sheet;
  private final Messages messages;
  private final Viewport view;
  private final ProjectFiles projects;
  private final StartPane start;
  private final Optional<Path> demo =
      Optional.ofNullable(System.getProperty("hushrise.demo"))
          .map(Path::of)
          .filter(Files::isRegularFile);

  Opening(Backstage backstage, FileChoice choice, Sheet sheet, Messages messages, Viewport view) {
    this.backstage = backstage;
    session = backstage.session();
    this.choice = choice;
    this.sheet = sheet;
    this.messages = messages;
    this.view = view;
    projects =
        new ProjectFiles(
            session,
            backstage.store(),
            choice,
            sheet,
            backstage.jobs(),
            messages,
            backstage.keeping(),
            this::settle,
            this::opened);
    start = new StartPane(choice, this::takeAs, this::openGuarded);
    projects.beingReadProperty().addListener((p, was, is) -> start.showReading(is));
    showStart(List.of());
    showStart();
  }

  ProjectFiles projects() {
    return projects;
  }

  /** What is shown while there is no film. */
  StartPane start() {
    return start;
  }

  void addTo(Commands.Builder table) {
    table
        .set(CommandId.NEW, projects::begin)
        .set(CommandId.OPEN, projects::open)
        .set(CommandId.OPEN_DEMO, this::openDemo)
        .set(CommandId.SAVE, () -> projects.save(() -> {}))
        .set(CommandId.SAVE_AS, () -> projects.saveAs(() -> {}))
        .set(CommandId.COLLECT, projects::collect)
        .set(CommandId.TIMELINE, projects::writeTimeline)
        .set(CommandId.ADD, this::add)
        .set(CommandId.OTHER_FILE, () -> backstage.renewals().choose(choice));
  }

  /** Opens a project file; whatever is open must have been dealt with. */
  void open(Path file) {
    backstage.transport().stop();
    projects.open(file);
  }

  private void openGuarded(Path file) {
    projects.guard(() -> open(file));
  }

  private void openDemo() {
    demo.ifPresentOrElse(this::openGuarded, () -> messages.complain(text("demo.missing")));
  }

  /** What was typed, ridden or spoken up to now belongs to the project that is open. */
  private void settle(Runnable then) {
    Takes.ask(sheet.getScene().getFocusOwner());
    backstage.transport().stop();
    backstage.recording().finish(then);
  }

  private void opened() {
    backstage.transport().stop();
    backstage.heard().forget();
    view.fit();
    backstage.intake().listenToAll();
    backstage.heard().files().look();
    showStart();
  }

  private void showStart() {
    backstage.jobs().run(() -> projects.recent().all(), this::showStart);
  }

  private void showStart(List<Path> recent) {
    List<Path> others = recent.stream().filter(p -> demo.filter(p::equals).isEmpty()).toList();
    start.show(others, demo.isPresent(), this::openDemo);
  }

  private void add() {
    take(choice.toRead(FileChoice.Kind.MEDIA, text("add.title"), true), true);
  }

  /**
   * Takes files and folders into the project; a project, collected or not, or a timeline is opened
   * instead.
   */
  void take(List<Path> chosen, boolean places) {
    projectAmong(chosen)
        .ifPresentOrElse(this::openGuarded, () -> backstage.intake().take(chosen, places));
  }

  /** The same for files with a purpose that a person named. */
  private void takeAs(List<Path> chosen, MediaKind kind) {
    projectAmong(chosen)
        .ifPresentOrElse(this::openGuarded, () -> backstage.intake().takeAs(chosen, kind));
  }

  private static Optional<Path> projectAmong(List<Path> files) {
    return files.stream()
        .filter(
            f ->
                f.toString().endsWith(ProjectFile.ENDING)
                    || CollectedZip.isCalled(f)
                    || Otio.isCalled(f))
        .findFirst();
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

  /** Offers what a crash has left, if it has left anything. */
  void offerWhatWasLeft(ObservableValue<Palette> palette) {
    backstage
        .jobs()
        .run(
            () -> backstage.keeping().journals().left(),
            left -> {
              if (!left.isEmpty()) {
                offer(left, palette);
              }
            });
  }

  /** Offers to go on with what was left. */
  void offer(List<Recovered> left, ObservableValue<Palette> palette) {
    new RecoverySheet(sheet, backstage.keeping().journals(), palette, projects::goOn).open(left);
  }
}

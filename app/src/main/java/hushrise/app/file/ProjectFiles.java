package hushrise.app.file;

import static hushrise.app.words.Texts.names;
import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.exchange.Otio;
import hushrise.core.exchange.OtioReader;
import hushrise.core.journal.Recovered;
import hushrise.core.project.Project;
import hushrise.core.store.AtomicFile;
import hushrise.core.store.CollectedZip;
import hushrise.core.store.ProjectCollection;
import hushrise.core.store.ProjectFile;
import hushrise.media.MediaStore;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/** Opens and saves projects, and asks before changes or files are lost. */
public final class ProjectFiles {

  private final Session session;
  private final MediaStore store;
  private final FileChoice choice;
  private final Questions questions;
  private final Jobs jobs;
  private final Messages messages;
  private final Safekeeping keeping;
  private final Consumer<Runnable> settling;
  private final Runnable opened;
  private final Saves saves;

  private final RecentProjects recent = new RecentProjects();
  private final ReadOnlyStringWrapper beingRead = new ReadOnlyStringWrapper("");

  /** Counts what was asked to be opened, so that what arrives after something else is let go. */
  private int asked;

  /**
   * @param keeping keeps earlier versions, and who has the project open
   * @param settling ends what is being played or recorded, and goes on once that is in the project
   * @param opened runs after another project has been opened
   */
  public ProjectFiles(
      Session session,
      MediaStore store,
      FileChoice choice,
      Questions questions,
      Jobs jobs,
      Messages messages,
      Safekeeping keeping,
      Consumer<Runnable> settling,
      Runnable opened) {
    this.session = session;
    this.store = store;
    this.choice = choice;
    this.questions = questions;
    this.jobs = jobs;
    this.messages = messages;
    this.keeping = keeping;
    this.settling = settling;
    this.opened = opened;
    saves = new Saves(session, choice, questions, jobs, messages, keeping, recent);
  }

  /** The projects that were opened or saved last. */
  public RecentProjects recent() {
    return recent;
  }

  /** What the project is called that is being read and has not taken its place yet; else empty. */
  public ReadOnlyStringProperty beingReadProperty() {
    return beingRead.getReadOnlyProperty();
  }

  /** Begins an empty project. */
  public void begin() {
    guard(
        () -> {
          begin(Project.empty(""));
          messages.say(text("begun"));
        });
  }

  /** Begins with a project that has no file yet. */
  private void begin(Project project) {
    next("");
    session.open(project, Optional.empty());
    saves.opened(Optional.empty());
    keeping.unlock();
    opened.run();
  }

  /**
   * Opens a project file, a zip that one was collected into, which is unpacked beside itself, or a
   * timeline of another program. Whatever is open must have been dealt with.
   */
  public void open(Path file) {
    if (CollectedZip.isCalled(file)) {
      Path zip = file.toAbsolutePath().normalize();
      jobs.run(
          text("unpack.under", zip.getFileName()),
          progress ->
              CollectedZip.unpack(
                  zip, FileNames.free(zip.getParent(), FileNames.bare(zip), ""), progress),
          project -> questions.whenClosed(() -> guard(() -> openProject(project))));
    } else if (Otio.isCalled(file)) {
      jobs.run(
          text("timeline.under", file.getFileName()),
          progress -> OtioReader.read(file, store, progress),
          reading -> questions.whenClosed(() -> guard(() -> beginWith(reading, file))));
    } else {
      openProject(file);
    }
  }

  /** Goes on from a timeline, and tells what of it could not be had. */
  private void beginWith(OtioReader.Reading reading, Path file) {
    begin(reading.project());
    messages.say(text("timeline.opened", file.getFileName()));
    if (!reading.losses().isEmpty()) {
      questions.tell(
          text("timeline.losses", file.getFileName()), String.join("\n", reading.losses()));
    }
  }

  private int next(String reads) {
    beingRead.set(reads);
    asked++;
    return asked;
  }

  private void openProject(Path file) {
    Path absolute = file.toAbsolutePath().normalize();
    String name = FileNames.bare(absolute);
    long turns = session.turns();
    int number = next(name);
    jobs.runSaying(
        text("open.reading", name),
        "",
        () -> {
          AtomicFile.clearDead(absolute.getParent());
          Project project = ProjectFile.load(file);
          keeping.versions().note(absolute);
          return project;
        },
        project -> arrive(number, turns, () -> take(project, absolute)),
        ifLast(number, () -> next("")));
  }

  /**
   * Goes on with what was read unless something else was asked for since; not under a sheet that is
   * about what is open, and what was done to that meanwhile is asked about first.
   */
  private void arrive(int number, long turns, Runnable then) {
    Runnable goOn =
        ifLast(
            number,
            () -> {
              beingRead.set("");
              settling.accept(ifLast(number, () -> afterOther(turns, ifLast(number, then))));
            });
    if (session.file().isEmpty() && session.present().shelf().isEmpty()) {
      goOn.run();
    } else {
      questions.whenClosed(goOn);
    }
  }

  private Runnable ifLast(int number, Runnable then) {
    return () -> {
      if (number == asked) {
        then.run();
      }
    };
  }

  private void afterOther(long turns, Runnable then) {
    if (session.turns() == turns && !saves.isWriting()) {
      then.run();
    } else {
      askToSave(then);
    }
  }

  private void take(Project project, Path file) {
    if (keeping.lock(file)) {
      show(project, file);
    } else {
      questions.ask(
          text("elsewhere.title"),
          text("elsewhere.question", file.getFileName()),
          text("elsewhere.answer"),
          () -> {
            keeping.unlock();
            show(project, file);
          });
    }
  }

  private void show(Project project, Path file) {
    session.open(project, Optional.of(file));
    saves.opened(session.file());
    recent.note(file);
    opened.run();
    messages.say(text("opened", project.name()));
  }

  /** Goes on with what a crash had left. */
  public void goOn(Recovered recovered) {
    guard(
        () -> {
          next("");
          session.goOn(recovered);
          saves.opened(recovered.project());
          recovered.project().ifPresentOrElse(keeping::lock, keeping::unlock);
          opened.run();
          messages.say(text("recover.done", recovered.name(), recovered.steps()));
        });
  }

  /** Asks which project to open. */
  public void open() {
    guard(
        () ->
            choice.toRead(FileChoice.Kind.PROJECT, text("open.title"), false).stream()
                .findFirst()
                .ifPresent(this::open));
  }

  /** Lets a ride or a take come to its end, and asks about unsaved changes before going on. */
  public void guard(Runnable then) {
    settling.accept(() -> askToSave(then));
  }

  private void askToSave(Runnable then) {
    if (saves.isWriting()) {
      afterSave(then);
    } else if (session.hasUnsavedChanges()) {
      questions.ask(
          text("unsaved.title"),
          text("unsaved.question"),
          text("unsaved.save"),
          () -> save(() -> askToSave(then)),
          text("unsaved.discard"),
          then);
    } else {
      then.run();
    }
  }

  /** Waits for the save that is under way, unless that takes long and somebody will not. */
  private void afterSave(Runnable then) {
    if (saves.isSlow()) {
      questions.ask(
          text("saving.title"),
          text("saving.question"),
          text("saving.answer"),
          () -> {
            saves.giveUp();
            askToSave(then);
          });
    } else {
      saves.whenDone(() -> askToSave(then));
    }
  }

  /** Saves, and asks where when that is not known, or when somebody else has changed the file. */
  public void save(Runnable then) {
    saves.save(then);
  }

  /** Asks where to save. */
  public void saveAs(Runnable then) {
    saves.saveAs(then);
  }

  /** Asks where to, and puts the project and all its files into a zip that opens elsewhere. */
  public void collect() {
    Project project = session.present();
    String name = FileNames.nameOf(project);
    choice
        .toWrite(
            FileChoice.Kind.COLLECTION,
            text("collect.title"),
            FileNames.free(saves.folder(), name, ".zip"))
        .ifPresent(
            chosen -> questions.withEnding(chosen, ".zip", file -> collect(project, name, file)));
  }

  private void collect(Project project, String name, Path file) {
    jobs.run(
        text("collect.under", name),
        progress -> ProjectCollection.collect(project, name, file, progress),
        made ->
            messages.say(
                made.missing().isEmpty()
                    ? text("collect.done", file, made.files())
                    : text("collect.missing", file, made.files(), names(made.missing()))));
  }

  /** Asks where to, and writes a timeline that other programs read. */
  public void writeTimeline() {
    Project project = session.present();
    choice
        .toWrite(
            FileChoice.Kind.TIMELINE,
            text("timeline.title"),
            FileNames.free(saves.folder(), FileNames.nameOf(project), Otio.ENDING))
        .ifPresent(
            chosen ->
                questions.withEnding(
                    chosen,
                    Otio.ENDING,
                    file ->
                        jobs.run(
                            () -> Otio.write(project, file),
                            written -> messages.say(text("timeline.written", written)))));
  }
}

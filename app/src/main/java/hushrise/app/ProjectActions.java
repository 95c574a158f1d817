package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.app.panel.FileSheet;
import hushrise.app.panel.Sheet;
import hushrise.core.Problem;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** Opens and saves projects, and asks before changes are lost. */
final class ProjectActions {

  private final Session session;
  private final Sheet sheet;
  private final Background background;
  private final Consumer<String> tell;
  private final Runnable opened;

  /**
   * @param tell says how it ended
   * @param opened runs after another project has been opened
   */
  ProjectActions(
      Session session, Sheet sheet, Background background, Consumer<String> tell, Runnable opened) {
    this.session = session;
    this.sheet = sheet;
    this.background = background;
    this.tell = tell;
    this.opened = opened;
  }

  /** Opens a project file; whatever is open must have been dealt with. */
  void open(Path file) {
    background.run(
        () -> ProjectFile.load(file),
        project -> {
          session.open(project, Optional.of(file.toAbsolutePath()));
          opened.run();
          tell.accept(text("opened", project.name()));
        });
  }

  /** Asks which project to open. */
  void open() {
    guard(
        () ->
            new FileSheet(
                    sheet,
                    false,
                    session.file().map(Path::toString).orElse(""),
                    List.of("*" + ProjectFile.ENDING))
                .ask(text("open.title"), text("open.action"), this::open));
  }

  /** Asks what to do with unsaved changes, if there are any, before going on. */
  void guard(Runnable then) {
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

  void save(Runnable then) {
    if (session.file().isPresent()) {
      save(session.file().get(), then);
    } else {
      saveAs(then);
    }
  }

  void saveAs(Runnable then) {
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
      tell.accept(text("savedTo", file));
      then.run();
    } catch (Problem e) {
      background.complain(e.getMessage());
    }
  }
}

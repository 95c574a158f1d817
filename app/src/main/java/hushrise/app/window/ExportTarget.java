package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.FileChoice;
import hushrise.app.file.FileNames;
import hushrise.app.job.Jobs;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.store.PortableName;
import hushrise.media.OutputFormat;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** Where an export goes: what is suggested, until somebody chooses another file. */
final class ExportTarget extends HBox {

  private final Session session;
  private final FileChoice choice;
  private final Jobs jobs;
  private final Supplier<OutputFormat> format;
  private final Label words = new Label();
  private Path file;
  private boolean mayReplace;

  /**
   * @param format what it is to be
   */
  ExportTarget(Session session, FileChoice choice, Jobs jobs, Supplier<OutputFormat> format) {
    super(8);
    this.session = session;
    this.choice = choice;
    this.jobs = jobs;
    this.format = format;
    words.setId("export-target");
    words.setTextOverrun(OverrunStyle.LEADING_ELLIPSIS);
    words.setMaxWidth(Double.MAX_VALUE);
    setHgrow(words, Priority.ALWAYS);
    setAlignment(Pos.CENTER_LEFT);
    getChildren().setAll(words, Form.button("export-choose", text("export.choose"), this::choose));
  }

  Path file() {
    return file;
  }

  /** Whether somebody has been asked about replacing what lies there. */
  boolean mayReplace() {
    return mayReplace;
  }

  private void choose() {
    choice
        .toWrite(FileChoice.Kind.EXPORT, text("export.title"), file)
        .ifPresent(
            chosen -> {
              Path named = FileNames.withEnding(chosen, "." + format.get().ending());
              goTo(named, named.equals(chosen)); // the system has not asked about the other
            });
  }

  private void goTo(Path to, boolean replaces) {
    file = to;
    mayReplace = replaces;
    words.setText(to.toString());
    words.setTooltip(new Tooltip(to.toString()));
  }

  /**
   * Suggests a file where exports went last, else beside the project or the picture; soon, as that
   * takes a look at the disk, one that is not there yet.
   */
  void suggest(OutputFormat wanted) {
    Project project = session.present();
    Optional<Path> picture = project.pictureMedia().map(Media::file);
    Path beside =
        session
            .file()
            .or(() -> picture)
            .map(f -> f.toAbsolutePath().getParent())
            .orElse(Path.of(System.getProperty("user.home")));
    String own = FileNames.nameOf(project);
    String name = project.name().isBlank() ? text("export.finished", own) : own;
    String ending = "." + wanted.ending();
    Path first = beside.resolve(PortableName.of(name) + ending);
    goTo(first, false);
    jobs.run(
        () ->
            FileNames.free(choice.lastFolder(FileChoice.Kind.EXPORT).orElse(beside), name, ending),
        free -> {
          if (file.equals(first) && !mayReplace && !free.equals(first)) {
            goTo(free, false);
          }
        });
  }
}

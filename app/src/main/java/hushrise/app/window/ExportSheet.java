package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.FileChoice;
import hushrise.app.file.FileNames;
import hushrise.app.job.Job;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.core.Problem;
import hushrise.core.export.MixExport;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.media.Exporter;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.util.StringConverter;

/** Exports the project: what and where to, then progress with the time left and a way to cancel. */
final class ExportSheet {

  private static final List<OutputFormat> FORMATS =
      List.of(
          OutputFormat.MP4,
          OutputFormat.MOV,
          OutputFormat.MKV,
          OutputFormat.WEBM,
          OutputFormat.WAV_24,
          OutputFormat.WAV_16,
          OutputFormat.WAV_32_FLOAT,
          OutputFormat.FLAC,
          OutputFormat.MP3,
          OutputFormat.AAC,
          OutputFormat.OPUS);

  private final Sheet sheet;
  private final Session session;
  private final MediaStore store;
  private final FileChoice choice;
  private final Jobs jobs;
  private final Messages messages;
  private final Label where = new Label();
  private Path target;
  private boolean mayReplace;
  private Optional<Job> running = Optional.empty();

  /**
   * @param messages are told how it ended
   */
  ExportSheet(
      Sheet sheet,
      Session session,
      MediaStore store,
      FileChoice choice,
      Jobs jobs,
      Messages messages) {
    this.sheet = sheet;
    this.session = session;
    this.store = store;
    this.choice = choice;
    this.jobs = jobs;
    this.messages = messages;
    where.setId("export-target");
    where.setTextOverrun(OverrunStyle.LEADING_ELLIPSIS);
    where.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(where, Priority.ALWAYS);
  }

  /** Whether something is being written. */
  boolean isRunning() {
    return running.isPresent();
  }

  /** Ends what is being written; an older file of that name stays. */
  void cancel() {
    running.ifPresent(Job::cancel);
  }

  void open() {
    boolean film = session.present().pictureClip().isPresent();
    ComboBox<OutputFormat> formats = new ComboBox<>();
    formats.setId("export-format");
    formats.setAccessibleText(text("export.format"));
    formats.getItems().setAll(FORMATS.stream().filter(f -> film || !f.isFilm()).toList());
    formats.setConverter(new Names());
    formats.setValue(film ? OutputFormat.MP4 : OutputFormat.WAV_24);
    goTo(suggestion(formats.getValue()), false);
    formats.setOnAction(e -> goTo(suggestion(formats.getValue()), false));
    Button choose =
        Form.button(
            "export-choose",
            text("export.choose"),
            () ->
                choice
                    .toWrite(FileChoice.Kind.EXPORT, text("export.title"), target)
                    .ifPresent(chosen -> chosen(chosen, formats.getValue())));
    Button start = new Button(text("export.start"));
    start.setId("export-start");
    start.setDefaultButton(true);
    start.getStyleClass().add("accent");
    start.setOnAction(e -> begin(formats.getValue()));
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setOnAction(e -> sheet.close());
    sheet.open(
        text("export.title"),
        start,
        () -> {},
        new Label(text("export.format")),
        formats,
        new Label(text("file.path")),
        new HBox(8, where, choose),
        Sheet.buttons(cancel, start));
  }

  private void goTo(Path file, boolean replaces) {
    target = file;
    mayReplace = replaces;
    where.setText(file.toString());
    where.setTooltip(new Tooltip(file.toString()));
  }

  /**
   * A file that was chosen; the system has asked about replacing it, unless its ending was added.
   */
  private void chosen(Path file, OutputFormat format) {
    Path named = FileNames.withEnding(file, "." + format.ending());
    goTo(named, named.equals(file));
  }

  /** Where exports went last, else beside the project or the picture; a name that is free. */
  private Path suggestion(OutputFormat format) {
    Project project = session.present();
    Optional<Path> picture = project.pictureMedia().map(Media::file);
    Path folder =
        choice
            .lastFolder(FileChoice.Kind.EXPORT)
            .or(
                () ->
                    session.file().or(() -> picture).map(Path::toAbsolutePath).map(Path::getParent))
            .orElse(Path.of(System.getProperty("user.home")));
    String name = FileNames.nameOf(project);
    return FileNames.free(
        folder,
        project.name().isBlank() ? text("export.finished", name) : name,
        "." + format.ending());
  }

  private void begin(OutputFormat format) {
    try {
      MixExport.requireNoInput(session.present(), target);
    } catch (Problem e) {
      sheet.close();
      messages.complain(e.getMessage());
      return;
    }
    if (mayReplace || !Files.exists(target)) {
      start(format);
    } else {
      sheet.ask(
          text("replace.title"),
          text("replace.question", target.getFileName()),
          text("replace.answer"),
          () -> start(format));
    }
  }

  private void start(OutputFormat format) {
    Project project = session.present();
    Path file = target;
    Job job =
        jobs.run(
            text("export.under", String.valueOf(file.getFileName())),
            progress -> Exporter.export(project, store, file, format, progress),
            result -> {
              running = Optional.empty();
              sheet.close();
              messages.say(
                  text(
                      result.pictureCopied() ? "export.doneCopied" : "export.done",
                      file,
                      "%.1f"
                          .formatted(result.measurement().integratedLufs())
                          .replace('-', '\u2212'),
                      "%.1f"
                          .formatted(result.measurement().truePeakDbtp())
                          .replace('-', '\u2212')));
            },
            () -> failed(file));
    running = Optional.of(job);
    showProgress(job);
  }

  private void failed(Path file) {
    boolean cancelled = running.filter(Job::isCancelled).isPresent();
    running = Optional.empty();
    sheet.close();
    if (cancelled) {
      messages.say(text(Files.exists(file) ? "export.cancelledOld" : "export.cancelled", file));
    }
  }

  private void showProgress(Job job) {
    ProgressBar bar = new ProgressBar();
    bar.setId("export-progress");
    bar.setMaxWidth(Double.MAX_VALUE);
    bar.progressProperty().bind(job.fractionProperty());
    Label left = new Label(text("export.starting"));
    job.fractionProperty()
        .addListener(
            (p, was, now) ->
                left.setText(text("export.left", "%.0f".formatted(Math.ceil(job.secondsLeft())))));
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setId("export-cancel");
    cancel.setOnAction(e -> sheet.close());
    sheet.open(job.words(), cancel, job::cancel, bar, left, Sheet.buttons(cancel));
  }

  private static final class Names extends StringConverter<OutputFormat> {
    @Override
    public String toString(OutputFormat format) {
      return text("format." + format.name());
    }

    @Override
    public OutputFormat fromString(String words) {
      throw new UnsupportedOperationException("Formats are picked, not typed");
    }
  }
}

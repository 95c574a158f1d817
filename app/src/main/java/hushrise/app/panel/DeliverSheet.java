package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Background;
import hushrise.app.Session;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.media.Deliverer;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.util.StringConverter;

/**
 * Delivers the project: what and where to, then progress with the time left and a way to cancel.
 */
public final class DeliverSheet {

  private static final long REDRAW_NANOS = 50_000_000L;
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
  private final Background background;
  private final Consumer<String> tell;

  /**
   * @param tell says how it ended
   */
  public DeliverSheet(
      Sheet sheet,
      Session session,
      MediaStore store,
      Background background,
      Consumer<String> tell) {
    this.sheet = sheet;
    this.session = session;
    this.store = store;
    this.background = background;
    this.tell = tell;
  }

  public void open() {
    ComboBox<OutputFormat> formats = new ComboBox<>();
    formats.setId("deliver-format");
    formats.setAccessibleText(text("deliver.format"));
    formats.getItems().setAll(FORMATS);
    formats.setConverter(new Names());
    boolean film = session.project().pictureClip().isPresent();
    formats.setValue(film ? OutputFormat.MP4 : OutputFormat.WAV_24);
    FileSheet file = new FileSheet(sheet, true, suggestion(formats.getValue()), List.of());
    formats.setOnAction(
        e -> file.path().setText(withEnding(file.path().getText(), formats.getValue())));
    Label where = new Label(text("file.path"));
    where.setLabelFor(file.path());
    Button start = new Button(text("deliver.start"));
    start.setId("deliver-start");
    start.setDefaultButton(true);
    start.getStyleClass().add("accent");
    start.setOnAction(e -> start(file.chosen(), formats.getValue()));
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setOnAction(e -> sheet.close());
    sheet.open(
        text("deliver.title"),
        start,
        () -> {},
        new Label(text("deliver.format")),
        formats,
        where,
        file.field(),
        Sheet.buttons(cancel, start));
  }

  /** Beside the project and with its name; before it is saved, beside the picture. */
  private String suggestion(OutputFormat format) {
    Optional<Path> picture = session.project().pictureMedia().map(Media::file);
    Path folder =
        session
            .file()
            .or(() -> picture)
            .map(Path::toAbsolutePath)
            .map(Path::getParent)
            .orElse(Path.of(System.getProperty("user.home")));
    String named = session.project().name();
    String name =
        named.isBlank()
            ? picture.map(p -> text("deliver.finished", bare(p))).orElse(text("untitled"))
            : named;
    return folder.resolve(name + "." + format.ending()).toString();
  }

  private static String bare(Path file) {
    return String.valueOf(file.getFileName()).replaceFirst("\\.[^.]+$", "");
  }

  private static String withEnding(String path, OutputFormat format) {
    int dot = path.lastIndexOf('.');
    int slash = Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\'));
    return (dot > slash ? path.substring(0, dot) : path) + "." + format.ending();
  }

  private void start(Path target, OutputFormat format) {
    Project project = session.present();
    AtomicBoolean cancelled = new AtomicBoolean();
    ProgressBar bar = new ProgressBar(0);
    bar.setId("deliver-progress");
    bar.setMaxWidth(Double.MAX_VALUE);
    Label left = new Label(text("deliver.starting"));
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setId("deliver-cancel");
    cancel.setOnAction(e -> sheet.close());
    sheet.open(
        text("deliver.under", String.valueOf(target.getFileName())),
        cancel,
        () -> cancelled.set(true),
        bar,
        left,
        Sheet.buttons(cancel));
    long begin = System.nanoTime();
    long[] shownAt = {0};
    background.run(
        () ->
            Deliverer.deliver(
                project,
                store,
                target,
                format,
                fraction -> {
                  if (cancelled.get()) {
                    throw new CancellationException();
                  }
                  long now = System.nanoTime();
                  if (now - shownAt[0] > REDRAW_NANOS) {
                    shownAt[0] = now;
                    double seconds =
                        (now - begin) / 1e9 / Math.max(fraction, 0.01) * (1 - fraction);
                    Platform.runLater(
                        () -> {
                          bar.setProgress(fraction);
                          left.setText(text("deliver.left", "%.0f".formatted(Math.ceil(seconds))));
                        });
                  }
                }),
        result -> {
          sheet.close();
          tell.accept(
              text(
                  result.pictureCopied() ? "deliver.doneCopied" : "deliver.done",
                  target,
                  "%.1f".formatted(result.measurement().integratedLufs()).replace('-', '\u2212'),
                  "%.1f".formatted(result.measurement().truePeakDbtp()).replace('-', '\u2212')));
        },
        () -> {
          sheet.close();
          if (cancelled.get()) {
            tell.accept(
                text(Files.exists(target) ? "deliver.cancelledOld" : "deliver.cancelled", target));
          }
        });
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

package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.Exports;
import hushrise.app.file.FileChoice;
import hushrise.app.file.FileNames;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.widget.Choice;
import hushrise.app.widget.Form;
import hushrise.app.widget.Takes;
import hushrise.app.widget.TypedField;
import hushrise.core.Problem;
import hushrise.core.export.Outputs;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.report.CreditsSheet;
import hushrise.core.time.Span;
import hushrise.core.time.Timecode;
import hushrise.media.Exporter;
import hushrise.media.Order;
import hushrise.media.OutputFormat;
import hushrise.media.Preset;
import hushrise.media.Presets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** Asks what is to be exported and where to, and puts the order into the queue. */
final class ExportSheet {

  private final Sheet sheet;
  private final Session session;
  private final FileChoice choice;
  private final Exports exports;
  private final Jobs jobs;
  private final Messages messages;
  private final Presets presets;
  private final Choice<Optional<Preset>> destination =
      new Choice<>(
          "export-preset", p -> p.map(Preset::name).orElseGet(() -> text("export.preset.none")));
  private final Choice<OutputFormat> formats =
      new Choice<>("export-format", f -> text("format." + f.name()));
  private final Choice<Integer> rates =
      new Choice<>("export-rate", kbps -> text("export.kbps", kbps));
  private final LoudnessFields loudness;
  private final CheckBox onlyRange = new CheckBox();
  private final CheckBox stems = new CheckBox(text("export.stems"));
  private final CheckBox report = new CheckBox(text("export.report"));
  private final CheckBox tracks = new CheckBox(text("export.tracks"));
  private final CheckBox credits = new CheckBox(text("export.creditsInTags"));
  private final CheckBox lastChapter = new CheckBox(text("export.creditsChapter"));
  private final CheckBox chapters = new CheckBox();
  private final TextField presetName = new TextField();
  private final Button forget = Form.button("export-forget", text("export.forget"), this::forget);
  private final ExportTarget where;
  private Optional<Span> range = Optional.empty();

  /** Counts what was asked of it, so that what is found out for something else is let go. */
  private int asked;

  /**
   * @param measured the film's loudness as far as it is known
   * @param messages are told what is wrong
   */
  ExportSheet(
      Sheet sheet,
      Session session,
      FileChoice choice,
      Exports exports,
      Jobs jobs,
      Presets presets,
      Supplier<Optional<FilmLoudness>> measured,
      Messages messages) {
    this.sheet = sheet;
    this.session = session;
    this.choice = choice;
    this.exports = exports;
    this.jobs = jobs;
    this.presets = presets;
    this.messages = messages;
    loudness = new LoudnessFields(measured, this::span);
    where = new ExportTarget(session, choice, jobs, formats::getValue);
    name(destination, "export.for");
    name(formats, "export.format");
    name(rates, "export.rate");
    destination.setOnAction(e -> take(destination.getValue()));
    formats.setOnAction(e -> formatChosen());
    onlyRange.setId("export-range");
    onlyRange.setOnAction(e -> loudness.tell());
    stems.setId("export-stems");
    report.setId("export-report");
    tracks.setId("export-tracks");
    credits.setId("export-credits");
    lastChapter.setId("export-credits-chapter");
    chapters.setId("export-chapters");
    Takes.limit(presetName, TypedField.LONGEST);
    presetName.setId("export-preset-name");
    presetName.setOnAction(e -> keep());
    presetName.setPromptText(text("export.presetName"));
    presetName.setAccessibleText(text("export.presetName"));
  }

  private static void name(Choice<?> box, String words) {
    box.setAccessibleText(text(words));
    box.setMaxWidth(Double.MAX_VALUE);
  }

  private boolean hasPicture() {
    return session.present().pictureClip().isPresent();
  }

  private Optional<Span> span() {
    return onlyRange.isSelected() ? range : Optional.empty();
  }

  /** Asks, with what was asked for last where that still makes sense. */
  void open() {
    asked++;
    boolean film = hasPicture();
    range =
        session.selection() instanceof Selection.OfSpan s && s.span().lengthFrames() > 0
            ? Optional.of(s.span())
            : Optional.empty();
    onlyRange.setSelected(false);
    show(onlyRange, range.isPresent());
    range.ifPresent(
        r -> onlyRange.setText(text("export.range", time(r.startFrame()), time(r.endFrame()))));
    tracks.setSelected(true);
    show(tracks, film);
    boolean owed = !CreditsSheet.of(session.present()).lines().isEmpty();
    show(credits, owed);
    show(lastChapter, owed);
    show(chapters, !session.present().markers().isEmpty());
    showPresets(Optional.empty());
    forget.setDisable(true);
    OutputFormat before = formats.getValue();
    formats
        .getItems()
        .setAll(Arrays.stream(OutputFormat.values()).filter(f -> film || !f.isFilm()).toList());
    OutputFormat usual = film ? OutputFormat.MP4 : OutputFormat.WAV_24;
    formats.setValue(before != null && formats.getItems().contains(before) ? before : usual);
    formatChosen();
    loudness.tell();
    Button start = new Button(text("export.start"));
    start.setId("export-start");
    start.setDefaultButton(true);
    start.getStyleClass().add("accent");
    start.setOnAction(e -> begin());
    Button cancel = new Button(text("sheet.cancel"));
    cancel.setOnAction(e -> sheet.close());
    Button keep = Form.button("export-keep", text("export.keep"), this::keep);
    HBox kept = new HBox(8, presetName, keep, forget);
    HBox.setHgrow(presetName, Priority.ALWAYS);
    kept.setAlignment(Pos.CENTER_LEFT);
    sheet.open(
        text("export.title"),
        start,
        choices(),
        loudness,
        new HBox(16, stems, report),
        new HBox(16, tracks, credits),
        new HBox(16, chapters, lastChapter),
        onlyRange,
        where,
        kept,
        Sheet.buttons(cancel, start));
  }

  /** Shows a choice where there is something to choose; what is not shown is not chosen. */
  private static void show(CheckBox choice, boolean shown) {
    choice.setVisible(shown);
    choice.setManaged(shown);
    choice.setSelected(choice.isSelected() && shown);
  }

  private GridPane choices() {
    GridPane grid = new GridPane(12, 8);
    row(grid, 0, "export.for", destination);
    row(grid, 1, "export.format", formats);
    row(grid, 2, "export.rate", rates);
    return grid;
  }

  private static void row(GridPane grid, int row, String words, Choice<?> box) {
    Label label = new Label(text(words));
    label.setLabelFor(box);
    label.setMinWidth(72);
    grid.addRow(row, label, box);
    GridPane.setHgrow(box, Priority.ALWAYS);
  }

  private String time(long frame) {
    Project project = session.present();
    return Timecode.format(frame, project.pictureRate(), project.sampleRate());
  }

  private void showPresets(Optional<Preset> chosen) {
    List<Optional<Preset>> all = new java.util.ArrayList<>(List.of(Optional.empty()));
    presets.all().stream()
        .filter(p -> hasPicture() || p.sound().isPresent())
        .forEach(p -> all.add(Optional.of(p)));
    destination.getItems().setAll(all);
    destination.setValue(chosen);
  }

  private void take(Optional<Preset> preset) {
    if (preset == null) {
      return;
    }
    forget.setDisable(preset.filter(p -> presets.kept().contains(p)).isEmpty());
    if (preset.isEmpty()) {
      loudness.show(Optional.empty());
      return;
    }
    Preset p = preset.get();
    (hasPicture() ? p.film().or(p::sound) : p.sound()).ifPresent(formats::setValue);
    int kbps = p.kbpsFor(formats.getValue());
    if (kbps > 0) {
      if (!rates.getItems().contains(kbps)) {
        rates.getItems().add(kbps);
      }
      rates.setValue(kbps);
    }
    loudness.show(p.goal());
  }

  private void formatChosen() {
    OutputFormat format = formats.getValue();
    if (format == null) {
      return;
    }
    where.suggest(format);
    rates.getItems().setAll(format.coding().choices());
    rates.setDisable(!format.coding().isLossy());
    rates.setValue(format.coding().isLossy() ? format.coding().usualKbps() : null);
    tracks.setDisable(!format.isFilm());
    boolean cues = format.isPlainWav();
    chapters.setText(text(cues ? "export.cuePoints" : "export.chapters"));
    allow(chapters, format.takesChapters());
    allow(lastChapter, format.takesChapters() && !cues);
  }

  private static void allow(CheckBox choice, boolean allowed) {
    choice.setDisable(!allowed);
    choice.setSelected(choice.isSelected() && allowed);
  }

  private Order order() {
    OutputFormat format = formats.getValue();
    Path target = where.file();
    String name = FileNames.bare(target);
    return Order.of(session.present(), target, format)
        .withKbps(rates.getValue() == null ? 0 : rates.getValue())
        .withRange(span())
        .withGoal(loudness.goal())
        .withStems(
            stems.isSelected()
                ? Optional.of(target.resolveSibling(text("export.stemsFolder", name)))
                : Optional.empty())
        .withReports(
            report.isSelected() ? List.of(target.resolveSibling(name + ".html")) : List.of())
        .withKeepsTracks(tracks.isSelected())
        .withCreditsInTags(credits.isSelected())
        .withCreditsChapter(lastChapter.isSelected())
        .withMarkersAsChapters(chapters.isSelected());
  }

  private void begin() {
    Order order = order();
    if (exports.writes(order.target())) {
      sheet.close();
      messages.complain(text("export.already", order.target()));
      return;
    }
    List<Path> outputs = Exporter.outputsOf(order);
    List<Path> inputs = order.project().shelf().stream().map(Media::file).toList();
    asked++;
    int number = asked;
    jobs.run(
        () -> {
          Outputs.requireApart(inputs, outputs);
          return outputs.stream().filter(Files::exists).findFirst();
        },
        old -> {
          if (isAsking(number)) {
            begin(order, old, outputs.size() == 1);
          }
        },
        () -> {
          if (isAsking(number)) {
            sheet.close();
          }
        });
  }

  private boolean isAsking(int number) {
    return number == asked && sheet.isOpen();
  }

  /**
   * @param old one of its files that is there already
   */
  private void begin(Order order, Optional<Path> old, boolean isOneFile) {
    boolean fine =
        old.isEmpty() || (where.mayReplace() && old.get().equals(order.target()) && isOneFile);
    if (fine) {
      sheet.close();
      exports.add(order);
    } else {
      sheet.ask(
          text("replace.title"),
          text("replace.question", old.get().getFileName()),
          text("replace.answer"),
          () -> {
            sheet.close();
            exports.add(order);
          });
    }
  }

  private void keep() {
    String name = presetName.getText().strip();
    if (name.isEmpty()) {
      presetName.requestFocus();
      return;
    }
    OutputFormat format = formats.getValue();
    Preset preset =
        new Preset(
            name,
            Optional.of(format).filter(OutputFormat::isFilm),
            Optional.of(format).filter(f -> !f.isFilm()),
            rates.getValue() == null ? 0 : rates.getValue(),
            loudness.goal());
    try {
      presets.keep(preset);
      presetName.clear();
      showPresets(Optional.of(preset));
    } catch (Problem e) {
      messages.complain(e.getMessage());
    }
  }

  private void forget() {
    Optional<Preset> chosen = destination.getValue();
    chosen.ifPresent(
        p -> {
          try {
            presets.forget(p.name());
            showPresets(Optional.empty());
          } catch (Problem e) {
            messages.complain(e.getMessage());
          }
        });
  }
}

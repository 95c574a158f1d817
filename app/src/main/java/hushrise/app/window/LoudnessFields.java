package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.widget.LevelField;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.time.Span;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Supplier;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The loudness that is asked for, and what it will take. */
final class LoudnessFields extends VBox {

  private static final double USUAL_LUFS = -16;

  private final Supplier<Optional<FilmLoudness>> measured;
  private final Supplier<Optional<Span>> range;
  private final CheckBox wanted = new CheckBox(text("export.loudness"));
  private final LevelField lufs;
  private final LevelField ceiling;
  private final LevelField limiting;
  private final Label told = new Label();
  private LoudnessGoal goal = LoudnessGoal.of(USUAL_LUFS);

  /**
   * @param measured the film's loudness as far as it is known
   * @param range the part that is exported; empty for all
   */
  LoudnessFields(Supplier<Optional<FilmLoudness>> measured, Supplier<Optional<Span>> range) {
    super(6);
    this.measured = measured;
    this.range = range;
    wanted.setId("export-loudness");
    wanted.setOnAction(e -> tell());
    lufs = field("export-lufs", "export.lufs", v -> Math.clamp(v, -60, -5));
    ceiling = field("export-ceiling", "export.ceiling", v -> Math.clamp(v, -20, 0));
    limiting = field("export-limiting", "export.limiting", v -> Math.clamp(v, 0, 20));
    told.setId("export-told");
    told.setWrapText(true);
    told.getStyleClass().add("faint");
    GridPane grid = new GridPane(8, 4);
    grid.addRow(0, name("export.lufs", lufs), lufs, new Label("LUFS"));
    grid.addRow(1, name("export.ceiling", ceiling), ceiling, new Label("dBTP"));
    grid.addRow(2, name("export.limiting", limiting), limiting, new Label("dB"));
    grid.disableProperty().bind(wanted.selectedProperty().not());
    getChildren().addAll(new HBox(wanted), grid, told);
    show(Optional.empty());
  }

  private LevelField field(String id, String words, DoubleUnaryOperator bounded) {
    LevelField field = new LevelField(text(words), v -> {});
    field.setId(id);
    field.atMost(20);
    field.onTaken(
        v -> {
          field.show(bounded.applyAsDouble(v));
          take(field, bounded.applyAsDouble(v));
        });
    return field;
  }

  private void take(LevelField field, double value) {
    goal =
        new LoudnessGoal(
            field == lufs ? value : goal.lufs(),
            field == ceiling ? value : goal.ceilingDbtp(),
            field == limiting ? value : goal.mostLimitingDb());
    tell();
  }

  private static Label name(String words, LevelField field) {
    Label label = new Label(text(words));
    label.setLabelFor(field);
    return label;
  }

  /** Shows what is asked for. */
  void show(Optional<LoudnessGoal> asked) {
    wanted.setSelected(asked.isPresent());
    goal = asked.orElse(goal);
    lufs.show(goal.lufs());
    ceiling.show(goal.ceilingDbtp());
    limiting.show(goal.mostLimitingDb());
    tell();
  }

  Optional<LoudnessGoal> goal() {
    return wanted.isSelected() ? Optional.of(goal) : Optional.empty();
  }

  /** Says how loud the film is, and what the wish will take. */
  void tell() {
    Optional<FilmLoudness> film = measured.get();
    if (film.isEmpty()) {
      told.setText(text("export.told.unknown"));
      return;
    }
    Span part = range.get().orElse(new Span(0, film.get().project().lengthFrames()));
    double is = film.get().integratedLufs(part);
    double peak = film.get().truePeakDbtp(part);
    if (!wanted.isSelected() || !Double.isFinite(is)) {
      told.setText(text("export.told.is", number(is), number(peak)));
      return;
    }
    double gain = goal.lufs() - is;
    double over = peak + gain - goal.ceilingDbtp();
    told.setText(
        over <= 0
            ? text("export.told.gain", number(is), signed(gain))
            : text(
                over <= goal.mostLimitingDb() ? "export.told.limited" : "export.told.tooMuch",
                number(is),
                signed(gain),
                number(over)));
  }

  private static String number(double value) {
    return "%.1f".formatted(value).replace('-', '\u2212');
  }

  private static String signed(double value) {
    return "%+.1f".formatted(value).replace('-', '\u2212');
  }
}

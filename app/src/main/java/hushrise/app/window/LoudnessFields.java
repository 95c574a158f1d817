package hushrise.app.window;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.widget.NumberField;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.time.Span;
import java.util.Optional;
import java.util.function.DoubleFunction;
import java.util.function.Supplier;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The loudness that is asked for, and what it will take. */
final class LoudnessFields extends VBox {

  private static final double USUAL_LUFS = -16;
  private static final double TWO_LINES = 38;

  private final Supplier<Optional<FilmLoudness>> measured;
  private final Supplier<Optional<Span>> range;
  private final CheckBox wanted = new CheckBox(text("export.loudness"));
  private final NumberField lufs;
  private final NumberField ceiling;
  private final NumberField limiting;
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
    lufs =
        field("lufs", -60, -5, x -> new LoudnessGoal(x, goal.ceilingDbtp(), goal.mostLimitingDb()));
    ceiling =
        field("ceiling", -20, 0, x -> new LoudnessGoal(goal.lufs(), x, goal.mostLimitingDb()));
    limiting = field("limiting", 0, 20, x -> new LoudnessGoal(goal.lufs(), goal.ceilingDbtp(), x));
    told.setId("export-told");
    told.setWrapText(true);
    told.setMinHeight(TWO_LINES);
    told.getStyleClass().add("faint");
    GridPane grid = new GridPane(8, 4);
    grid.addRow(0, name("export.lufs", lufs), lufs, new Label("LUFS"));
    grid.addRow(1, name("export.ceiling", ceiling), ceiling, new Label("dBTP"));
    grid.addRow(2, name("export.limiting", limiting), limiting, new Label("dB"));
    grid.disableProperty().bind(wanted.selectedProperty().not());
    getChildren().addAll(new HBox(wanted), grid, told);
    show(Optional.empty());
  }

  private NumberField field(
      String name, double least, double most, DoubleFunction<LoudnessGoal> with) {
    NumberField field =
        new NumberField(
            text("export." + name),
            least,
            most,
            number -> {
              goal = with.apply(number);
              tell();
            });
    field.setId("export-" + name);
    return field;
  }

  private static Label name(String words, NumberField field) {
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
      String words = peak > 0 ? "export.told.over" : "export.told.is";
      told.setText(text(words, number(is), number(peak)));
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
    return figure("%.1f", value);
  }

  private static String signed(double value) {
    return figure("%+.1f", value);
  }
}

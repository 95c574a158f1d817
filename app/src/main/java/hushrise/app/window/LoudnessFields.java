package hushrise.app.window;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.widget.TypedField;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.time.Span;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Supplier;
import java.util.function.ToDoubleFunction;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The loudness that is asked for, and what it will take. */
final class LoudnessFields extends VBox {

  private static final double USUAL_LUFS = -16;
  private static final double TWO_LINES = 38;
  private static final double STEP = 0.5;
  private static final double FINE = 0.1;

  private final Supplier<Optional<FilmLoudness>> measured;
  private final Supplier<Optional<Span>> range;
  private final CheckBox wanted = new CheckBox(text("export.loudness"));
  private final TypedField lufs;
  private final TypedField ceiling;
  private final TypedField limiting;
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
    lufs = field("export-lufs", "export.lufs", -60, -5, LoudnessGoal::lufs);
    ceiling = field("export-ceiling", "export.ceiling", -20, 0, LoudnessGoal::ceilingDbtp);
    limiting = field("export-limiting", "export.limiting", 0, 20, LoudnessGoal::mostLimitingDb);
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

  /**
   * A field for a number of the goal. What is typed counts at once where it can be; else it is
   * marked, and given back when the field is left. Esc gives back what was there before all that.
   */
  private TypedField field(
      String id, String words, double least, double most, ToDoubleFunction<LoudnessGoal> of) {
    TypedField field = new TypedField();
    field.setId(id);
    field.getStyleClass().add("level-field");
    field.setAccessibleText(text(words));
    field.setTip(text("export.number.tip", number(least), number(most)));
    field
        .textProperty()
        .addListener(
            (p, was, typed) -> {
              OptionalDouble value = parsed(typed);
              boolean fits =
                  value.isPresent() && value.getAsDouble() >= least && value.getAsDouble() <= most;
              field.getStyleClass().remove("wrong");
              if (!fits) {
                field.getStyleClass().add("wrong");
              } else if (value.getAsDouble() != of.applyAsDouble(goal)) {
                take(field, value.getAsDouble());
              }
            });
    field.focusedProperty().addListener((p, was, is) -> field.show(number(of.applyAsDouble(goal))));
    field.onStep(
        (direction, fine) ->
            field.setText(
                number(
                    Math.clamp(
                        of.applyAsDouble(goal) + direction * (fine ? FINE : STEP), least, most))));
    return field;
  }

  private static OptionalDouble parsed(String typed) {
    String plain = typed.strip().replace('\u2212', '-').replace(',', '.');
    return plain.matches("[-+]?\\d{1,3}(\\.\\d{0,2})?")
        ? OptionalDouble.of(Double.parseDouble(plain))
        : OptionalDouble.empty();
  }

  private void take(TypedField field, double value) {
    goal =
        new LoudnessGoal(
            field == lufs ? value : goal.lufs(),
            field == ceiling ? value : goal.ceilingDbtp(),
            field == limiting ? value : goal.mostLimitingDb());
    tell();
  }

  private static Label name(String words, TypedField field) {
    Label label = new Label(text(words));
    label.setLabelFor(field);
    return label;
  }

  /** Shows what is asked for. */
  void show(Optional<LoudnessGoal> asked) {
    wanted.setSelected(asked.isPresent());
    goal = asked.orElse(goal);
    LoudnessGoal shown = goal;
    lufs.show(number(shown.lufs()));
    ceiling.show(number(shown.ceilingDbtp()));
    limiting.show(number(shown.mostLimitingDb()));
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

package hushrise.app.widget;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import java.util.OptionalDouble;
import java.util.function.DoubleConsumer;

/**
 * A number between two others, to a tenth. What is typed counts at once where it can be; else it is
 * marked, and what counts is given back on Enter and when the field is left. Esc gives back what
 * was there before all that; the arrow keys and the wheel go up and down by a half, with Shift by a
 * tenth.
 */
public final class NumberField extends TypedField {

  private static final double STEP = 0.5;
  private static final double FINE = 0.1;

  private final double least;
  private final double most;
  private final DoubleConsumer onTaken;
  private double value;

  /**
   * @param accessible what the number is of
   * @param onTaken receives a new number
   */
  public NumberField(String accessible, double least, double most, DoubleConsumer onTaken) {
    this.least = least;
    this.most = most;
    this.onTaken = onTaken;
    getStyleClass().add("level-field");
    Takes.selectByPress(this);
    setAccessibleText(accessible);
    setTip(text("field.number.tip", written(least), written(most)));
    textProperty().addListener((p, was, now) -> typed(now));
    onTyped(this::taken);
    focusedProperty().addListener((p, was, is) -> show(written(value)));
    onStep(
        (direction, fine) -> {
          setText(written(Math.clamp(value + direction * (fine ? FINE : STEP), least, most)));
          selectAll();
        });
  }

  /** Shows a number, unless somebody has begun to type another. */
  public void show(double number) {
    value = number;
    show(written(number));
  }

  private void taken(String words) {
    if (fits(parsed(words))) {
      show(written(value));
    } else {
      refuse(written(value), text("field.number.wrong", written(least), written(most)));
    }
  }

  private boolean fits(OptionalDouble number) {
    return number.isPresent() && number.getAsDouble() >= least && number.getAsDouble() <= most;
  }

  private void typed(String words) {
    OptionalDouble number = parsed(words);
    mark(!fits(number));
    if (fits(number) && !written(number.getAsDouble()).equals(written(value))) {
      value = Math.round(number.getAsDouble() * 10) / 10.0;
      onTaken.accept(value);
    }
  }

  private static OptionalDouble parsed(String words) {
    String plain = words.strip().replace('\u2212', '-').replace(',', '.');
    return plain.matches("[-+]?\\d{1,3}(\\.\\d{0,2})?")
        ? OptionalDouble.of(Double.parseDouble(plain))
        : OptionalDouble.empty();
  }

  private static String written(double number) {
    return figure("%.1f", number);
  }
}

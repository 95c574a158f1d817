package hushrise.app.widget;

import static hushrise.app.words.Texts.text;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelText;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleConsumer;

/**
 * A level that can be typed in dB or percent; the arrow keys and the wheel step by 1 dB (with Shift
 * by 0.1), a double-click returns to 0 dB.
 */
public final class LevelField extends TypedField {

  private static final double STEP_DB = 1;
  private static final double FINE_STEP_DB = 0.1;

  private DoubleConsumer onTaken;
  private Optional<DoubleConsumer> onRelative = Optional.empty();
  private double shownDb;
  private double highestDb = Keyframe.MAX_DB;

  /**
   * @param accessible what the level is of
   * @param onTaken receives a new level in dB
   */
  public LevelField(String accessible, DoubleConsumer onTaken) {
    this.onTaken = onTaken;
    getStyleClass().add("level-field");
    setAccessibleText(accessible);
    setTip(text("field.level.tip", accessible));
    Takes.selectByPress(this);
    onTyped(this::typed);
    onStep((direction, fine) -> set(shownDb + direction * (fine ? FINE_STEP_DB : STEP_DB)));
    setOnMouseClicked(
        e -> {
          if (e.getClickCount() == 2) {
            forgetTyped();
            set(0);
          }
        });
  }

  /** Sets what a typed level does. */
  public void onTaken(DoubleConsumer taken) {
    onTaken = taken;
    onRelative = Optional.empty();
  }

  /** Begins to type another level in place of the one that is shown. */
  public void begin(boolean empty) {
    Focus.ask(this);
    if (empty) {
      clear();
    } else {
      selectAll();
    }
  }

  /** Sets the highest level that it takes; 0 for a hush. */
  public LevelField atMost(double db) {
    highestDb = db;
    return this;
  }

  /**
   * Sets what a relative level does, such as {@code by -3}; else it is added to the level that is
   * shown.
   */
  public LevelField relative(DoubleConsumer taken) {
    onRelative = Optional.of(taken);
    return this;
  }

  /** Shows a level, unless somebody has begun to type another. */
  public void show(double db) {
    shownDb = db;
    show(LevelText.format(db));
  }

  private void typed(String words) {
    String before = LevelText.format(shownDb);
    if (words.equals(before)) {
      return;
    }
    OptionalDouble by = LevelText.parseRelative(words);
    OptionalDouble typed = LevelText.parse(words);
    if (by.isPresent() && onRelative.isPresent()) {
      show(before);
      onRelative.get().accept(by.getAsDouble());
    } else if (by.isPresent()) {
      set(shownDb + by.getAsDouble());
    } else if (typed.isPresent() && typed.getAsDouble() <= highestDb) {
      set(typed.getAsDouble());
    } else {
      refuse(before, text("field.level.wrong", LevelText.format(highestDb)));
    }
  }

  private void set(double db) {
    double held = Math.min(db, highestDb);
    show(held);
    onTaken.accept(held);
  }
}

package hushrise.app.widget;

import static hushrise.app.words.Texts.text;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelText;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleConsumer;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.ScrollEvent;

/**
 * A level that can be typed in dB or percent. Enter takes it, and leaving the field; Esc gives the
 * old value back, Up and Down step by 1 dB (with Shift by 0.1), a double-click returns to 0 dB. A
 * text that is no level leaves the old value and says what the field takes.
 */
public final class LevelField extends TextField implements Takes {

  private final WrongMark mark = new WrongMark(this);
  private DoubleConsumer onTaken;
  private final Tooltip usual;
  private Optional<DoubleConsumer> onRelative = Optional.empty();
  private double shownDb;
  private double highestDb = Keyframe.MAX_DB;

  /**
   * @param accessible what the level is of
   * @param onTaken receives a new level in dB
   */
  public LevelField(String accessible, DoubleConsumer onTaken) {
    this.onTaken = onTaken;
    this.usual = new Tooltip(text("field.level.tip", accessible));
    getStyleClass().add("level-field");
    setAccessibleText(accessible);
    setTooltip(usual);
    setOnAction(
        e -> {
          takeMarkAway();
          takeTyped();
          selectAll();
        });
    Focus.whenLeft(this, this::leave);
    Takes.selectByPress(this);
    addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    addEventFilter(ScrollEvent.SCROLL, this::turn);
    setOnMouseClicked(
        e -> {
          if (e.getClickCount() == 2) {
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
    if (db == shownDb && getText().equals(LevelText.format(db))) {
      return;
    }
    boolean typing = isFocused() && !getText().equals(LevelText.format(shownDb));
    shownDb = db;
    if (!typing) {
      setText(LevelText.format(db));
      selectIfFocused();
    }
  }

  private void key(KeyEvent e) {
    if (e.getCode() == KeyCode.ESCAPE) {
      forgetTyped();
    } else if (e.getCode() == KeyCode.UP || e.getCode() == KeyCode.DOWN) {
      double step = e.isShiftDown() ? 0.1 : 1;
      set(shownDb + (e.getCode() == KeyCode.UP ? step : -step));
      e.consume();
    }
  }

  private void turn(ScrollEvent e) {
    double by = e.getDeltaY() == 0 ? e.getDeltaX() : e.getDeltaY();
    if (isFocused() && by != 0) {
      set(shownDb + Math.signum(by) * (e.isShiftDown() ? 0.1 : 1));
      e.consume();
    }
  }

  private void giveBack() {
    setText(LevelText.format(shownDb));
    takeMarkAway();
  }

  private void takeMarkAway() {
    mark.clear();
    tell(usual);
  }

  private void tell(Tooltip tip) {
    setTooltip(tip);
    setAccessibleHelp(tip.getText());
  }

  private void selectIfFocused() {
    if (isFocused()) {
      selectAll();
    }
  }

  /** Takes what was typed; who leaves a refusal as it is has let it go. */
  private void leave() {
    if (mark.isRefused() && getText().equals(LevelText.format(shownDb))) {
      takeMarkAway();
    } else {
      takeTyped();
    }
  }

  @Override
  public boolean isRefused() {
    return mark.isRefused();
  }

  @Override
  public boolean forgetTyped() {
    boolean other = !getText().equals(LevelText.format(shownDb));
    giveBack();
    return other;
  }

  @Override
  public void takeTyped() {
    if (getText().equals(LevelText.format(shownDb))) {
      return;
    }
    OptionalDouble by = LevelText.parseRelative(getText());
    if (by.isPresent()) {
      giveBack();
      if (onRelative.isPresent()) {
        onRelative.get().accept(by.getAsDouble());
      } else {
        set(shownDb + by.getAsDouble());
      }
      return;
    }
    OptionalDouble typed = LevelText.parse(getText());
    if (typed.isEmpty() || typed.getAsDouble() > highestDb) {
      String words = getText();
      giveBack();
      selectIfFocused();
      tell(new Tooltip(text("field.level.wrong", LevelText.format(highestDb))));
      mark.refuse(words, getTooltip().getText());
    } else {
      set(typed.getAsDouble());
    }
  }

  private void set(double db) {
    double held = Math.min(db, highestDb);
    takeMarkAway();
    shownDb = held;
    setText(LevelText.format(held));
    selectIfFocused();
    onTaken.accept(held);
  }
}

package hushrise.app.widget;

import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.ScrollEvent;

/**
 * A value that can be typed: Enter takes it, and leaving the field; Esc gives the old one back.
 * Where it has steps, the arrow keys and, while it has the focus, the wheel go up and down. What is
 * no value gives the old one back and says what the field takes.
 */
public class TypedField extends TextField implements Takes {

  /** Goes a step up or down. */
  @FunctionalInterface
  public interface Step {

    /**
     * Goes one step.
     *
     * @param direction 1 up, -1 down
     * @param fine whether it is to be a small step
     */
    void go(int direction, boolean fine);
  }

  /** The longest text that a field takes, in characters. */
  public static final int LONGEST = 10_000;

  private final WrongMark mark = new WrongMark(this);
  private String shown = "";
  private String takes = "";
  private Optional<Step> step = Optional.empty();
  private Consumer<String> taken = typed -> {};
  private boolean isShownAnew;
  private boolean answered;

  public TypedField() {
    setOnAction(
        e -> {
          take();
          selectAll();
        });
    Takes.limit(this, LONGEST);
    Focus.whenLeft(this, this::leave);
    addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    addEventFilter(ScrollEvent.SCROLL, this::turn);
  }

  private void key(KeyEvent e) {
    if (e.getCode() == KeyCode.ESCAPE) {
      forgetTyped();
    } else if (step.isPresent() && (e.getCode() == KeyCode.UP || e.getCode() == KeyCode.DOWN)) {
      go(e.getCode() == KeyCode.UP ? 1 : -1, e.isShiftDown());
      e.consume();
    }
  }

  private void turn(ScrollEvent e) {
    double by = e.getDeltaY() == 0 ? e.getDeltaX() : e.getDeltaY();
    if (step.isPresent() && isFocused() && by != 0) {
      go(by > 0 ? 1 : -1, e.isShiftDown());
      e.consume();
    }
  }

  /** Goes a step from what is typed, where that can be taken. */
  private void go(int direction, boolean fine) {
    leave();
    if (!mark.isRefused()) {
      step.get().go(direction, fine);
    }
  }

  /** Sets what the arrow keys and the wheel do. */
  public void onStep(Step goes) {
    step = Optional.of(goes);
  }

  /** Sets what a typed text does. */
  public void onTyped(Consumer<String> does) {
    taken = does;
  }

  /**
   * Tells that a new value is shown after each edit: where what was typed makes none, the old one
   * stands again.
   */
  public void setShownAnew() {
    isShownAnew = true;
  }

  @Override
  public void takeTyped() {
    if (!getText().equals(shown)) {
      take();
    }
  }

  /** Takes what was typed; who leaves a refusal as it is has let it go. */
  private void leave() {
    if (mark.isRefused() && getText().equals(shown)) {
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
    boolean other = !getText().equals(shown);
    setText(shown);
    takeMarkAway();
    return other;
  }

  private void take() {
    String typed = getText();
    String before = shown;
    shown = typed;
    answered = false;
    takeMarkAway();
    taken.accept(typed);
    if (isShownAnew && !answered) {
      show(before);
    }
  }

  /**
   * Shows a value, unless somebody has begun to type another; where the field has the keys it is
   * selected, so that the next one can be typed over it.
   */
  public void show(String value) {
    boolean typing = isFocused() && !getText().equals(shown);
    shown = value;
    answered = true;
    if (!typing && !getText().equals(value)) {
      setText(value);
      selectIfFocused();
      takeMarkAway();
    }
  }

  private void selectIfFocused() {
    if (isFocused()) {
      selectAll();
    }
  }

  /** Marks what stands there as something that cannot be taken, or takes the mark away. */
  final void mark(boolean wrong) {
    if (wrong) {
      mark.set();
    } else {
      takeMarkAway();
    }
  }

  private void takeMarkAway() {
    boolean wasRefused = mark.isRefused();
    mark.clear();
    if (wasRefused) {
      tell(takes);
    }
  }

  /** Sets what the tooltip says while nothing was refused. */
  public void setTip(String words) {
    takes = words;
    if (!mark.isRefused()) {
      tell(words);
    }
  }

  private void tell(String words) {
    if (!words.equals(getAccessibleHelp())) {
      setTooltip(new Tooltip(words));
      setAccessibleHelp(words);
    }
  }

  /** Gives a value back after a text that is none, and says so until that is over. */
  public void refuse(String value, String help) {
    String typed = getText();
    shown = value;
    answered = true;
    setText(value);
    selectIfFocused();
    tell(help);
    mark.refuse(typed, help);
  }
}

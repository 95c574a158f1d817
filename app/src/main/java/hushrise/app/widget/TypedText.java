package hushrise.app.widget;

import java.util.function.Consumer;
import javafx.animation.PauseTransition;
import javafx.scene.TraversalDirection;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.util.Duration;

/**
 * A text of many lines that can be typed; it is taken when it is left, and every few seconds while
 * somebody writes, so that no more than these can be lost.
 */
public final class TypedText extends TextArea implements Takes {

  private static final Duration UNTAKEN = Duration.seconds(5);

  private final PauseTransition writing = new PauseTransition(UNTAKEN);
  private String shown = "";
  private Consumer<String> taken = typed -> {};

  /**
   * @param longest how many characters it takes
   */
  public TypedText(int longest) {
    setWrapText(true);
    Takes.limit(this, longest);
    Focus.whenLeft(this, this::takeTyped);
    addEventFilter(KeyEvent.KEY_PRESSED, this::leaveByTab);
    writing.setOnFinished(e -> takeTyped());
    textProperty()
        .subscribe(
            typed -> {
              if (!typed.equals(shown)) {
                writing.play(); // goes on, where it runs
              }
            });
  }

  /** Tab goes on to the next part of the window, as from any field. */
  private void leaveByTab(KeyEvent e) {
    if (e.getCode() == KeyCode.TAB && !e.isShortcutDown() && !e.isAltDown()) {
      requestFocusTraversal(
          e.isShiftDown() ? TraversalDirection.PREVIOUS : TraversalDirection.NEXT);
      e.consume();
    }
  }

  /** Sets what a typed text does. */
  public void onTyped(Consumer<String> does) {
    taken = does;
  }

  /** Shows a text, unless somebody is typing another. */
  public void show(String text) {
    boolean typing = isFocused() && !getText().equals(shown);
    shown = text;
    if (!typing && !getText().equals(text)) {
      setText(text);
    }
  }

  /** Of a whole text nothing is given up at a key. */
  @Override
  public boolean forgetTyped() {
    return false;
  }

  @Override
  public void takeTyped() {
    writing.stop();
    if (!getText().equals(shown)) {
      shown = getText();
      taken.accept(shown);
    }
  }
}

package hushrise.app.widget;

import java.util.function.Consumer;
import javafx.scene.control.TextArea;

/** A text of many lines that can be typed; it is taken when it is left. */
public final class TypedText extends TextArea implements Takes {

  private String shown = "";
  private Consumer<String> taken = typed -> {};

  /**
   * @param longest how many characters it takes
   */
  public TypedText(int longest) {
    setWrapText(true);
    Takes.limit(this, longest);
    Focus.whenLeft(this, this::takeTyped);
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

  @Override
  public void takeTyped() {
    if (!getText().equals(shown)) {
      shown = getText();
      taken.accept(shown);
    }
  }
}

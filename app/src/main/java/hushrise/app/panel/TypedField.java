package hushrise.app.panel;

import java.util.function.Consumer;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;

/**
 * A value that can be typed: Enter takes it. What is no value gives the old one back and says what
 * the field takes.
 */
final class TypedField extends TextField {

  private String shown = "";
  private String takes = "";

  /** Sets what a typed text does. */
  void onTyped(Consumer<String> taken) {
    setOnAction(
        e -> {
          String typed = getText();
          shown = typed;
          getStyleClass().remove("wrong");
          taken.accept(typed);
        });
  }

  /** Shows a value, unless somebody has begun to type another. */
  void show(String value) {
    boolean typing = isFocused() && !getText().equals(shown);
    shown = value;
    if (!typing && !getText().equals(value)) {
      setText(value);
      getStyleClass().remove("wrong");
    }
  }

  /** Sets what the tooltip says. */
  void setTip(String words) {
    if (!words.equals(takes)) {
      takes = words;
      setTooltip(new Tooltip(words));
    }
  }

  /** Gives a value back after a text that is none, and says what the field takes. */
  void refuse(String value, String help) {
    shown = value;
    setText(value);
    getStyleClass().remove("wrong");
    getStyleClass().add("wrong");
    setTip(help);
    setAccessibleHelp(help);
  }
}

package hushrise.app.widget;

import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.control.TextFormatter;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.MouseEvent;

/** What is typed into, and takes what was typed when it is left or somebody asks it to. */
public interface Takes {

  /** Takes what has been typed so far; does nothing when nothing was. */
  void takeTyped();

  /** Gives back what stood there before; whether something else had been typed. */
  boolean forgetTyped();

  /** Whether what was typed last was refused, so that it is to be typed again. */
  default boolean isRefused() {
    return false;
  }

  /** Lets the node that has the keys take what was typed into it, if it is such a one. */
  static void ask(Node hasKeys) {
    if (hasKeys instanceof Takes takes) {
      takes.takeTyped();
    }
  }

  /** Lets the node that has the keys give back what stood there before; whether it had to. */
  static boolean forget(Node hasKeys) {
    return hasKeys instanceof Takes takes && takes.forgetTyped();
  }

  /**
   * Lets the press that gives a number the keys select all of it, so that another can be typed at
   * once; a drag selects what it goes over.
   */
  static void selectByPress(TextField field) {
    boolean[] gaveKeys = {false};
    field.addEventFilter(MouseEvent.MOUSE_PRESSED, e -> gaveKeys[0] = !field.isFocused());
    field.addEventHandler(
        MouseEvent.MOUSE_RELEASED,
        e -> {
          if (gaveKeys[0] && field.getSelection().getLength() == 0) {
            field.selectAll();
          }
        });
  }

  /** Leaves out what is typed or put in beyond a number of characters. */
  static void limit(TextInputControl field, int characters) {
    field.setTextFormatter(
        new TextFormatter<>(
            change -> {
              int over = change.getControlNewText().length() - characters;
              if (over > 0) {
                String text = change.getText();
                change.setText(text.substring(0, Math.max(0, text.length() - over)));
                int end = change.getRangeStart() + change.getText().length();
                change.selectRange(end, end);
              }
              return change;
            }));
  }
}

package hushrise.bench;

import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** Types all kinds of things into the fields that are seen, and presses the buttons. */
final class Fingers {

  private static final List<String> TEXTS =
      List.of(
          "",
          " ",
          "x",
          "0",
          "-1",
          "1",
          "2.5",
          "2,5",
          "-6 dB",
          "+3",
          "1e9",
          "NaN",
          "infinity",
          "300",
          "-300",
          "99:99:99:99",
          "00:00:10:00",
          "1:00",
          "00:00:30:12",
          "off",
          "by 3",
          "by -3",
          "by 1000",
          "0.0001",
          "a name",
          "\u00e9t\u00e9 \ud83d\udea2",
          "'{0}' %s \\ \" <b>");

  /** What leads out of the window, or waits for somebody. */
  private static final List<String> LEFT_OUT = List.of("show", "folder", "browse");

  private static final List<KeyCode> ENDS =
      List.of(KeyCode.ENTER, KeyCode.ENTER, KeyCode.TAB, KeyCode.ESCAPE);

  private final Parent root;
  private final Random random;
  private String last = "nothing";

  Fingers(Parent root, Random random) {
    this.root = root;
    this.random = random;
  }

  /** What was done last. */
  String words() {
    return last;
  }

  /** Types into a field, or presses a button, or chooses of a list, whatever there is to see. */
  void act() {
    List<Node> all = seen(root).filter(n -> n instanceof TextInputControl || usable(n)).toList();
    if (all.isEmpty()) {
      return;
    }
    Node node = all.get(random.nextInt(all.size()));
    last = "%s on %s".formatted(node.getId(), node.getClass().getSimpleName());
    switch (node) {
      case TextInputControl field when field.isEditable() -> type(field);
      case ComboBox<?> box when !box.getItems().isEmpty() -> {
        last += " choosing";
        box.getSelectionModel().select(random.nextInt(box.getItems().size()));
      }
      case ButtonBase button -> {
        last += " '" + button.getText() + "'";
        button.fire();
      }
      default -> node.requestFocus();
    }
    Hand.closePopups();
  }

  private static boolean usable(Node node) {
    String id = String.valueOf(node.getId());
    return (node instanceof ButtonBase || node instanceof ComboBoxBase<?>)
        && !(node instanceof MenuButton)
        && LEFT_OUT.stream().noneMatch(id::contains);
  }

  private void type(TextInputControl field) {
    String text = TEXTS.get(random.nextInt(TEXTS.size()));
    KeyCode end = ENDS.get(random.nextInt(ENDS.size()));
    last += " typing '%s' and %s".formatted(text, end);
    field.requestFocus();
    field.setText(text);
    for (var type : List.of(KeyEvent.KEY_PRESSED, KeyEvent.KEY_RELEASED)) {
      if (field.getScene() != null) {
        field.fireEvent(new KeyEvent(type, "", "", end, false, false, false, false));
      }
    }
    if (end == KeyCode.TAB) {
      root.requestFocus();
    }
  }

  private static Stream<Node> seen(Node node) {
    if (!node.isVisible() || node.isDisabled()) {
      return Stream.empty();
    }
    return node instanceof Parent parent
        ? Stream.concat(
            Stream.of(node), parent.getChildrenUnmodifiable().stream().flatMap(Fingers::seen))
        : Stream.of(node);
  }
}

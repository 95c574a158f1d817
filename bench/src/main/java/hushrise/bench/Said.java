package hushrise.bench;

import hushrise.app.window.Window;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.text.Text;

/** What a window says about the project: its words and figures, each with where it stands. */
final class Said {

  /** What is said about what was done last, or about the moment. */
  private static final Set<String> OF_THE_MOMENT = Set.of("status", "menus", "sheet");

  private Said() {}

  static List<String> by(Window window) {
    List<String> all = new ArrayList<>();
    collect(window.root(), "", all);
    return all;
  }

  private static void collect(Node node, String place, List<String> into) {
    if (!node.isVisible() || node.getId() != null && OF_THE_MOMENT.contains(node.getId())) {
      return;
    }
    String here = node.getId() == null ? place : place + "/" + node.getId();
    switch (node) {
      case Labeled l when l.getText() != null && !l.getText().isBlank() ->
          into.add(here + ": " + l.getText());
      case TextInputControl t -> into.add(here + ": " + t.getText());
      case Text t when !t.getText().isBlank() -> into.add(here + ": " + t.getText());
      case Parent p -> p.getChildrenUnmodifiable().forEach(c -> collect(c, here, into));
      default -> {}
    }
  }
}

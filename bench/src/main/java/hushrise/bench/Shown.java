package hushrise.bench;

import hushrise.app.look.Pixels;
import hushrise.app.window.Window;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.text.Text;

/**
 * What a window shows of the project.
 *
 * @param words its words and figures, each with where it stands
 * @param lanes the pixels of each lane
 */
record Shown(List<String> words, List<int[]> lanes) {

  /** What is said about what was done last, or about the moment. */
  private static final Set<String> OF_THE_MOMENT = Set.of("status", "menus", "sheet");

  static Shown by(Window window) {
    List<String> words = new ArrayList<>();
    collect(window.root(), "", words);
    List<int[]> lanes =
        window.root().lookupAll(".lane").stream()
            .map(lane -> Pixels.of(lane.snapshot(null, null)))
            .toList();
    return new Shown(words, lanes);
  }

  /** In which it differs from what is shown later; empty when in nothing. */
  String against(Shown later) {
    List<String> gone = new ArrayList<>(words);
    later.words.forEach(gone::remove);
    List<String> come = new ArrayList<>(later.words);
    words.forEach(come::remove);
    StringBuilder all = new StringBuilder();
    if (!gone.isEmpty() || !come.isEmpty()) {
      all.append("says no longer %s but %s; ".formatted(gone, come));
    }
    if (lanes.size() != later.lanes.size()) {
      return all + "has %d lanes instead of %d".formatted(later.lanes.size(), lanes.size());
    }
    for (int i = 0; i < lanes.size(); i++) {
      int at = Arrays.mismatch(lanes.get(i), later.lanes.get(i));
      if (at >= 0) {
        all.append("draws lane %d otherwise, from pixel %d on; ".formatted(i, at));
      }
    }
    return all.toString();
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

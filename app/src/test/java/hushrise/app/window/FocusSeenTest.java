package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.widget.Focus;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.Spinner;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Whoever goes by Tab sees where the keys are, and stays in the sheet that is open. */
class FocusSeenTest extends SurveyTestCase {

  /** How far a colour's part must change, of 255, and in how many pixels. */
  private static final int CHANGE = 60;

  private static final int PIXELS = 24;

  /** The parts that Tab goes to, in their order. */
  private static List<Node> stops(Node within) {
    List<Node> all = new ArrayList<>();
    if (within.isVisible() && !within.isDisabled()) {
      if (within.isFocusTraversable()) {
        all.add(within);
      }
      if (within instanceof Parent parent && !(within instanceof Spinner)) {
        parent.getChildrenUnmodifiable().forEach(n -> all.addAll(stops(n)));
      }
    }
    return all;
  }

  /** Counts the pixels within some bounds that two pictures of the window clearly differ in. */
  private static int changed(WritableImage before, WritableImage after, Bounds in) {
    int count = 0;
    int right = (int) Math.min(in.getMaxX() + 3, before.getWidth());
    int bottom = (int) Math.min(in.getMaxY() + 3, before.getHeight());
    for (int y = (int) Math.max(0, in.getMinY() - 3); y < bottom; y++) {
      for (int x = (int) Math.max(0, in.getMinX() - 3); x < right; x++) {
        int was = before.getPixelReader().getArgb(x, y);
        int is = after.getPixelReader().getArgb(x, y);
        int most = 0;
        for (int shift = 0; shift < 24; shift += 8) {
          most = Math.max(most, Math.abs((was >> shift & 255) - (is >> shift & 255)));
        }
        count += most > CHANGE ? 1 : 0;
      }
    }
    return count;
  }

  private WritableImage picture() {
    WritableImage[] taken = new WritableImage[1];
    robot.interact(() -> taken[0] = window.root().snapshot(null, null));
    return taken[0];
  }

  private Node owner() {
    return window.root().getScene().getFocusOwner();
  }

  /**
   * Goes by Tab through all parts of a view; none looks the same with the keys and without. That
   * the timeline has them is what is so when no other part is marked.
   */
  private void assertSeen(CommandId command, Supplier<List<Node>> parts) {
    robot.interact(() -> window.run(command));
    untilQuiet();
    List<Node> stops = parts.get();
    assertThat(stops).as("%s", command).hasSizeGreaterThan(2);
    Set<Node> reached = new HashSet<>();
    robot.interact(() -> Focus.ask(stops.getFirst()));
    for (int i = 0; i < stops.size(); i++) {
      Node stop = owner();
      WritableImage with = picture();
      Bounds in = window.root().sceneToLocal(stop.localToScene(stop.getBoundsInLocal()));
      Node other = stops.get(stop.equals(stops.getLast()) ? 0 : stops.size() - 1);
      robot.interact(() -> Focus.ask(other));
      assertThat(changed(picture(), with, in))
          .as("pixels that tell in %s that the keys are in %s", command, stop)
          .isGreaterThan(stop.equals(find("timeline")) ? -1 : PIXELS);
      reached.add(stop);
      robot.interact(() -> Focus.ask(stop));
      press(KeyCode.TAB);
    }
    // of those of which one is chosen Tab goes to that one, and arrows go on from there
    assertThat(reached)
        .containsAll(
            stops.stream()
                .filter(n -> !(n instanceof ToggleButton b) || b.getToggleGroup() == null)
                .toList());
  }

  @Test
  void whereTheKeysAreIsSeenInSheets() {
    for (CommandId command : List.of(CommandId.CREDITS, CommandId.VERSIONS, CommandId.EXPORT)) {
      assertSeen(command, () -> stops(find("sheet")));
      robot.interact(window::closeSheet);
    }
    robot.interact(() -> window.run(CommandId.THEME));
    assertSeen(CommandId.EXPORT, () -> stops(find("sheet")));
  }

  @Test
  void whereTheKeysAreIsSeenInTheWindow() {
    assertSeen(CommandId.SHELF, () -> stops(window.root()));
    assertSeen(CommandId.RECORDER, () -> stops(find("recorder")));
    bare();
    assertSeen(CommandId.HUSH_ALL, () -> stops(find("draft")));
  }

  @Test
  void tabGoesRoundWithinASheet() {
    robot.interact(() -> window.run(CommandId.EXPORT));
    untilQuiet();
    List<Node> stops = stops(find("sheet"));
    assertThat(stops).hasSizeGreaterThan(8);
    for (KeyCode[] keys :
        List.of(new KeyCode[] {KeyCode.TAB}, new KeyCode[] {KeyCode.SHIFT, KeyCode.TAB})) {
      List<Node> reached = new ArrayList<>();
      for (int i = 0; i <= stops.size(); i++) {
        press(keys);
        reached.add(owner());
      }
      assertThat(reached).containsOnlyElementsOf(stops).containsAll(stops);
    }
  }

  @Test
  void arrowsGoFromOneTabToTheOther() {
    ToggleButton passages = find("tab-passages");
    robot.interact(() -> Focus.ask(find("tab-findings")));
    press(KeyCode.RIGHT);
    assertThat(passages.isSelected()).isTrue();
    press(KeyCode.LEFT);
    assertThat(passages.isSelected()).isFalse();
    assertThat(window.session().playhead()).isZero();
  }

  /** What is read aloud of a part: a name of its own, its words, or the label that is for it. */
  private String nameOf(Node node) {
    if (node.getAccessibleText() != null) {
      return node.getAccessibleText();
    }
    String words = node instanceof Labeled labeled ? labeled.getText() : "";
    return words.isBlank()
        ? within(window.root())
            .filter(n -> n instanceof Label label && node.equals(label.getLabelFor()))
            .map(n -> ((Label) n).getText())
            .findFirst()
            .orElse("")
        : words;
  }

  @Test
  void everyPartSaysWhatItIs() {
    List<String> nameless = new ArrayList<>();
    eachView(
        view ->
            stops(window.root()).stream()
                .filter(n -> nameOf(n).isBlank())
                .forEach(n -> nameless.add(view + ": " + n)));
    assertThat(nameless).isEmpty();
  }
}

package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javafx.geometry.Orientation;
import javafx.scene.Node;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.TextField;
import javafx.scene.layout.Region;
import javafx.scene.text.Text;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** All of the window's own words are there to be read. */
@Tag(WindowTestCase.ANY_PLATFORM)
class WordsSeenTest extends SurveyTestCase {

  private static final double SMALL_WIDTH = 1000;
  private static final double SMALL_HEIGHT = 560;

  private final Set<String> bad = new LinkedHashSet<>();

  private void findCut(String where) {
    robot.interact(
        () ->
            within(window.root())
                .forEach(
                    n -> {
                      if (n instanceof Labeled l && l.isTextTruncated()) {
                        bad.add(where + ": " + n.getId() + " " + l.getText());
                      } else if (n instanceof TextField f
                          && f.lookup(".text") instanceof Text text
                          && text.getLayoutBounds().getWidth() > f.getWidth() - 6) {
                        bad.add(where + ": " + n.getId() + " shows " + f.getText());
                      } else if (n instanceof ScrollBar bar
                          && bar.getOrientation() == Orientation.HORIZONTAL) {
                        bad.add(where + ": scrolls sideways in " + n.getParent());
                      } else if (n instanceof Control
                          && n.localToScene(n.getBoundsInLocal()).getMaxX()
                              > window.root().getWidth() + 1) {
                        bad.add(where + ": " + n.getId() + " lies outside " + n);
                      }
                    }));
  }

  private void findNameless(String where) {
    robot.interact(
        () ->
            within(window.root())
                .filter(n -> n.isFocusTraversable() && !n.isDisabled())
                .filter(n -> nameOf(n).isBlank())
                .forEach(n -> bad.add(where + ": " + n.getId() + " " + n)));
  }

  /** What a screen reader says of a node. */
  private String nameOf(Node node) {
    if (node.getAccessibleText() != null) {
      return node.getAccessibleText();
    }
    if (node instanceof Labeled labeled && labeled.getText() != null) {
      return labeled.getText();
    }
    return within(window.root())
        .filter(n -> n instanceof Label label && label.getLabelFor() == node)
        .map(n -> ((Label) n).getText())
        .findAny()
        .orElse("");
  }

  @Test
  void allThatTakesTheKeysHasAName() {
    everywhere(this::findNameless);
    assertThat(bad).isEmpty();
  }

  @Test
  void noWordsAreCutShort() {
    everywhere(this::findCut);
    assertThat(bad).isEmpty();
  }

  @Test
  void aLongSentenceStandsInTwoLines() {
    resize(SMALL_WIDTH, SMALL_HEIGHT);
    Path file =
        folder.resolve("a folder with a long name ".repeat(6).strip()).resolve("a film.mp4");
    double before = this.<Region>find("timeline").getHeight();
    robot.interact(() -> window.take(List.of(file), false));
    until("it is said", () -> status().contains("a film.mp4"));
    Labeled status = find("status");
    until("it is whole", () -> !status.isTextTruncated());
    assertThat(status.isWrapText()).isTrue();
    assertThat(this.<Region>find("timeline").getHeight()).isEqualTo(before);
    robot.interact(() -> window.run(CommandId.SNAP));
    until("there is one line", () -> !status.isWrapText());
  }

  @Test
  void noWordsAreCutShortInASmallWindow() {
    resize(SMALL_WIDTH, SMALL_HEIGHT);
    everywhere(this::findCut);
    assertThat(bad).isEmpty();
  }
}

package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.widget.Focus;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Text;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A window of 1000 by 560: everything can be reached, and used. */
class SmallWindowTest extends SurveyTestCase {

  private static final double WIDTH = 1000;
  private static final double HEIGHT = 560;

  @BeforeEach
  void small() {
    resize(WIDTH, HEIGHT);
  }

  private static Bounds inWindow(Node node) {
    return node.localToScene(node.getBoundsInLocal());
  }

  @Test
  void aDraftShowsItsCountsAndIsTaken() {
    draft();
    Labeled counts = find("draft-counts");
    assertThat(((Text) counts.lookup(".text")).getText()).isEqualTo(counts.getText());
    robot.clickOn("#draft-take");
    assertThat(music().hushes()).hasSize(4);
  }

  @Test
  void aSheetFits() {
    press(KeyCode.CONTROL, KeyCode.E);
    assertThat(inWindow(find("export-start")).getMaxY()).isLessThan(HEIGHT);
  }

  @Test
  void theRecorderScrollsToWhatHasTheKeys() {
    robot.interact(() -> window.run(CommandId.RECORDER));
    untilQuiet();
    assertThat(inWindow(find("status")).getMaxY()).isLessThanOrEqualTo(HEIGHT);
    Node folder = find("recorder-folder");
    Node seen = robot.lookup(".side > .viewport").query();
    assertThat(inWindow(folder).getMaxY()).isGreaterThan(inWindow(seen).getMaxY());
    robot.interact(() -> Focus.ask(find("recorder-drafts")));
    press(KeyCode.TAB);
    assertThat(folder.isFocused()).isTrue();
    until("it is seen", () -> inWindow(folder).getMaxY() <= inWindow(seen).getMaxY());
  }

  @Test
  void aLittleHigherTheTimelineHasRoomForItsTracks() {
    resize(WIDTH, 640);
    Node lane = find("lane-music");
    assertThat(inWindow(lane).getHeight()).isGreaterThan(80);
    assertThat(inWindow(lane).getMaxX()).isGreaterThan(WIDTH - 30);
    drag(on(55, 0), on(55, 0));
    robot.clickOn(on(30, -40));
    assertThat(window.session().selection().clipIds()).hasSize(1);
  }
}

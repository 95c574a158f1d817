package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.session.Selection;
import hushrise.core.project.media.TrackKind;
import java.util.List;
import java.util.Set;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Text;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A window of 1000 by 640: nothing is cut off, everything can be reached. */
class SmallWindowTest extends WindowTestCase {

  private static final double WIDTH = 1000;
  private static final double HEIGHT = 640;

  @BeforeEach
  void small() {
    untilOpen();
    robot.interact(
        () -> {
          var stage = window.root().getScene().getWindow();
          double frameWidth = stage.getWidth() - window.root().getScene().getWidth();
          double frameHeight = stage.getHeight() - window.root().getScene().getHeight();
          stage.setWidth(WIDTH + frameWidth);
          stage.setHeight(HEIGHT + frameHeight);
        });
    until("the window is small", () -> window.root().getWidth() <= WIDTH);
    untilQuiet();
  }

  /** Whether a node is laid out and can be seen somewhere in the window. */
  private static boolean isShown(Node node) {
    for (Node n = node; n != null; n = n.getParent()) {
      if (!n.isVisible()) {
        return false;
      }
    }
    return true;
  }

  private static boolean isWithin(Node node, String... panes) {
    Set<String> ids = Set.of(panes);
    for (Node n = node; n != null; n = n.getParent()) {
      if (n.getId() != null && ids.contains(n.getId())) {
        return true;
      }
    }
    return false;
  }

  private void assertNothingIsCutOff(String where) {
    Set<Node> controls =
        robot
            .lookup(
                (Node n) ->
                    isShown(n)
                        && (n instanceof ButtonBase
                            || n instanceof ComboBox<?>
                            || n instanceof Label && isWithin(n, "detail", "draft")))
            .queryAll();
    assertThat(controls)
        .isNotEmpty()
        .allSatisfy(
            n -> {
              Set<Node> texts = n.lookupAll(".text");
              texts.stream()
                  .filter(Text.class::isInstance)
                  .forEach(
                      t ->
                          assertThat(((Text) t).getText())
                              .as("%s: a control of %s", where, n.getId())
                              .doesNotContain("\u2026")
                              .doesNotEndWith("..."));
              Bounds at = n.localToScene(n.getBoundsInLocal());
              assertThat(at.getMinX()).as("%s: %s", where, n.getId()).isGreaterThanOrEqualTo(0);
              assertThat(at.getMaxX())
                  .as("%s: %s", where, n.getId())
                  .isLessThanOrEqualTo(WIDTH + 1);
            });
    Set<TextField> fields =
        robot.lookup((Node n) -> n instanceof TextField && isShown(n)).queryAllAs(TextField.class);
    assertThat(fields)
        .isNotEmpty()
        .allSatisfy(
            field ->
                assertThat(((Text) field.lookup(".text")).getLayoutBounds().getWidth())
                    .as("%s: %s shows %s", where, field.getId(), field.getText())
                    .isLessThanOrEqualTo(field.getWidth() - 6));
  }

  @Test
  void whateverIsSelectedItsNumbersAndButtonsAreWhole() {
    String track = music().id();
    List<Selection> all =
        List.of(
            Selection.nothing(),
            new Selection.OfTrack(track),
            new Selection.OfClip(track, music().clips().getFirst().id()),
            new Selection.OfSeam(track, music().clips().getFirst().id(), 0),
            new Selection.OfHush(track, music().hushes().getFirst().id()),
            new Selection.OfRise(track, music().rises().getFirst().id()),
            new Selection.OfClip(
                project().firstTrack(TrackKind.VOICE).orElseThrow().id(),
                project().firstTrack(TrackKind.VOICE).orElseThrow().clips().getFirst().id()));
    for (Selection one : all) {
      robot.interact(() -> window.session().select(one));
      untilQuiet();
      assertNothingIsCutOff(one.getClass().getSimpleName());
    }
  }

  @Test
  void aDraftShowsItsCountsAndButtonsWhole() {
    robot.interact(
        () ->
            window
                .session()
                .commit("bare", p -> p.withTrack(music().id(), t -> t.withHushes(List.of()))));
    robot.clickOn("#hush");
    until("the draft is shown", () -> window.session().draft().isPresent());
    untilQuiet();
    assertNothingIsCutOff("draft");
    Labeled counts = find("draft-counts");
    assertThat(((Text) counts.lookup(".text")).getText()).isEqualTo(counts.getText());
    robot.clickOn("#draft-take");
    assertThat(music().hushes()).hasSize(4);
  }

  @Test
  void theShelfTheSheetAndTheFinderFit() {
    robot.clickOn("#shelf-button");
    untilQuiet();
    assertNothingIsCutOff("Shelf");
    press(KeyCode.CONTROL, KeyCode.E);
    Node start = find("export-start");
    Bounds at = start.localToScene(start.getBoundsInLocal());
    assertThat(at.getMaxY()).isLessThan(HEIGHT);
    assertNothingIsCutOff("Export");
    press(KeyCode.ESCAPE);
    press(KeyCode.F1);
    assertNothingIsCutOff("keys");
    press(KeyCode.ESCAPE);
  }

  @Test
  void theTimelineKeepsRoomForItsTracks() {
    Node lane = find("lane-music");
    Bounds at = lane.localToScene(lane.getBoundsInLocal());
    assertThat(at.getHeight()).isGreaterThan(80);
    assertThat(at.getMaxX()).isGreaterThan(WIDTH - 30);
    drag(on(55, 0), on(55, 0));
    robot.clickOn(on(30, -40));
    assertThat(window.session().selection().clipIds()).hasSize(1);
  }
}

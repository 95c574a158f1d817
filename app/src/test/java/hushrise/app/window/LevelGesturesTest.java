package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.session.Selection;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import javafx.geometry.Point2D;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Shaping the level by hand. */
class LevelGesturesTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
  }

  @Test
  void ctrlClickAddsAKeyframeOnTheLineAndADragMovesItOnOneAxis() {
    ctrlClick(20, -20);
    assertThat(keyframes()).hasSize(1);
    assertClose(keyframes().getFirst().frame() / (double) RATE, 20, 0.1);
    assertThat(keyframes().getFirst().levelDb()).isZero();
    long frame = keyframes().getFirst().frame();
    drag(on(20, 0), on(20, -15).add(14, 0));
    assertThat(keyframes().getFirst().frame())
        .as("a sideways slip changes no time")
        .isEqualTo(frame);
    assertClose(keyframes().getFirst().levelDb(), -15, 0.6);
    double level = keyframes().getFirst().levelDb();
    drag(on(20, level), on(22, level).add(0, 9));
    assertThat(keyframes().getFirst().levelDb())
        .as("a slip downwards changes no level")
        .isEqualTo(level);
    assertClose(keyframes().getFirst().frame() / (double) RATE, 22, 0.2);
  }

  @Test
  void anotherButtonWhileOneIsHeldDoesNothing() {
    ctrlClick(20, -20);
    robot.moveTo(on(20, 0)).press(MouseButton.PRIMARY).moveTo(on(20, -6));
    QuickRobot.settle();
    assertThat(window.session().isDragging()).isTrue();
    robot.press(MouseButton.SECONDARY);
    QuickRobot.settle();
    robot.release(MouseButton.SECONDARY);
    QuickRobot.settle();
    assertThat(javafx.stage.Window.getWindows()).as("no menu").hasSize(1);
    assertThat(window.session().isDragging()).isTrue();
    assertThat(window.session().selection()).isInstanceOf(Selection.OfKeyframe.class);
    robot.moveTo(on(20, -15));
    QuickRobot.settle();
    robot.release(MouseButton.PRIMARY);
    QuickRobot.settle();
    assertThat(window.session().isDragging()).isFalse();
    assertClose(keyframes().getFirst().levelDb(), -15, 0.6);
    robot.clickOn(on(20, -30), MouseButton.SECONDARY);
    QuickRobot.settle();
    assertThat(javafx.stage.Window.getWindows()).as("a menu").hasSizeGreaterThan(1);
  }

  @Test
  void aDoubleClickAddsAKeyframeToo() {
    doubleClick(40, -30);
    assertThat(keyframes()).hasSize(1);
  }

  @Test
  void aDipDrawnByHandIsFourKeyframesWhoseFloorDragsAsOne() {
    for (double t : new double[] {17, 18, 20, 21}) {
      ctrlClick(t, -25);
    }
    assertThat(keyframes()).hasSize(4);
    drag(on(19, 0), on(19, -12));
    assertThat(keyframes().get(0).levelDb()).isZero();
    assertClose(keyframes().get(1).levelDb(), -12, 0.6);
    assertThat(keyframes().get(2).levelDb()).isEqualTo(keyframes().get(1).levelDb());
    assertThat(keyframes().get(3).levelDb()).isZero();
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(keyframes().get(1).levelDb()).as("the drag is one step").isZero();
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
    assertClose(keyframes().get(1).levelDb(), -12, 0.6);
  }

  @Test
  void valuesAreTypedInDecibelsAndPercentAndNonsenseIsNotTaken() {
    ctrlClick(20, -20);
    type("detail-keyframe", "-9.5");
    assertThat(keyframes().getFirst().levelDb()).isEqualTo(-9.5);
    type("detail-keyframe", "50%");
    assertClose(keyframes().getFirst().levelDb(), -6.02, 0.01);
    type("detail-keyframe", "loud");
    assertClose(keyframes().getFirst().levelDb(), -6.02, 0.01);
    TextField field = find("detail-keyframe");
    assertThat(field.getText()).isEqualTo("\u22126.0 dB");
    assertThat(field.getStyleClass()).contains("wrong");
    assertThat(status()).startsWith("\u201cloud\u201d was not taken. A level is");
    assertThat(field.isFocused()).as("it is to be typed again").isTrue();
    robot.write("-7");
    press(KeyCode.ENTER);
    assertThat(keyframes().getFirst().levelDb()).isEqualTo(-7);
    assertThat(status()).isEmpty();
    assertThat(find("detail-keyframe").isFocused()).isFalse();
    type("detail-keyframe", "50%");
    type("detail-time", "00:00:21:00");
    assertThat(keyframes().getFirst().frame()).isEqualTo(21L * RATE);
    type("detail-time", "whenever");
    assertThat(status()).startsWith("\u201cwhenever\u201d was not taken. A time is");
    press(KeyCode.TAB);
    assertThat(status()).as("who leaves it has let it go").isEmpty();
    assertThat(find("detail-time").getStyleClass()).doesNotContain("wrong");
    assertThat(keyframes().getFirst().frame()).isEqualTo(21L * RATE);
  }

  @Test
  void aStepGoesFromWhatIsTyped() {
    ctrlClick(20, -20);
    robot.clickOn("#detail-keyframe").push(KeyCode.CONTROL, KeyCode.A).write("-9.5");
    press(KeyCode.DOWN);
    assertThat(keyframes().getFirst().levelDb()).isEqualTo(-10.5);
    robot.push(KeyCode.CONTROL, KeyCode.A).write("loud");
    press(KeyCode.DOWN);
    TextField field = find("detail-keyframe");
    assertThat(field.getText()).as("there is nothing to step from").isEqualTo("\u221210.5 dB");
    assertThat(field.getStyleClass()).contains("wrong");
    press(KeyCode.DOWN);
    assertThat(keyframes().getFirst().levelDb()).isEqualTo(-11.5);
    assertThat(field.getStyleClass()).doesNotContain("wrong");
    assertThat(status()).isEmpty();
  }

  @Test
  void anotherValueThatIsShownIsNotRefused() {
    ctrlClick(20, -20);
    TextField field = find("detail-keyframe");
    String usual = field.getAccessibleHelp();
    type("detail-keyframe", "-9.5");
    type("detail-keyframe", "loud");
    assertThat(field.getTooltip().getText()).startsWith("A level is");
    robot.interact(() -> this.<ButtonBase>find("undo").fire());
    assertThat(field.getText()).isEqualTo(LevelText.format(0));
    assertThat(field.isFocused()).isTrue();
    assertThat(field.getStyleClass()).doesNotContain("wrong");
    assertThat(field.getTooltip().getText()).isEqualTo(usual);
    assertThat(field.getAccessibleHelp()).isEqualTo(usual);
    assertThat(status()).startsWith("Undone");
  }

  @Test
  void undoTakesBackWhatWasTyped() {
    ctrlClick(20, -20);
    type("detail-keyframe", "-9.5");
    robot.clickOn("#undo");
    assertThat(keyframes().getFirst().levelDb()).isZero();
    robot.clickOn("#undo");
    assertThat(keyframes()).isEmpty();
    robot.clickOn("#redo");
    until("the keyframe is back", () -> keyframes().size() == 1);
    robot.clickOn("#redo");
    until("and what was typed", () -> keyframes().getFirst().levelDb() == -9.5);
  }

  @Test
  void deleteRemovesTheSelectedKeyframe() {
    ctrlClick(20, -20);
    press(KeyCode.DELETE);
    assertThat(keyframes()).isEmpty();
  }

  @Test
  void escapeGivesADragBack() {
    ctrlClick(20, -20);
    robot.moveTo(on(20, 0)).press(MouseButton.PRIMARY).moveTo(on(20, -18));
    assertThat(keyframes().getFirst().levelDb()).isLessThan(-10);
    press(KeyCode.ESCAPE);
    assertThat(keyframes().getFirst().levelDb()).isZero();
    robot.release(MouseButton.PRIMARY);
    assertThat(keyframes().getFirst().levelDb()).isZero();
    assertThat(window.session().undoName()).hasValue("add keyframe");
  }

  @Test
  void aKeyframeThatComesMeanwhileLeavesTheStretchInTheHand() {
    ctrlClick(18, -20);
    ctrlClick(21, -20);
    robot.interact(() -> window.session().seek(17L * RATE));
    robot.moveTo(on(20, 0)).press(MouseButton.PRIMARY).moveTo(on(20, -6));
    press(KeyCode.K);
    robot.moveTo(on(20, -9)).release(MouseButton.PRIMARY);
    assertThat(keyframes()).hasSize(3);
    assertThat(keyframes().get(0).frame()).isEqualTo(17L * RATE);
    assertThat(keyframes().get(0).levelDb()).isZero();
    assertThat(keyframes().get(1).levelDb()).isLessThan(-8);
    assertThat(keyframes().get(2).levelDb()).isEqualTo(keyframes().get(1).levelDb());
  }

  @Test
  void aKeyframeThatComesMeanwhileIsNotSelectedWithTheOneInTheHand() {
    ctrlClick(18, -20);
    ctrlClick(21, -20);
    robot.interact(() -> window.session().seek(17L * RATE));
    robot.moveTo(on(21, 0)).press(MouseButton.PRIMARY).moveTo(on(21, -6));
    press(KeyCode.K);
    robot.moveTo(on(21, -9)).release(MouseButton.PRIMARY);
    assertThat(keyframes().get(2).levelDb()).isLessThan(-8);
    press(KeyCode.DELETE);
    assertThat(keyframes()).hasSize(2).allSatisfy(k -> assertThat(k.levelDb()).isZero());
    assertThat(keyframes().getLast().frame()).isLessThan(19L * RATE);
  }

  @Test
  void aKeyframeThatIsDeletedWhileItIsHeldEndsTheDrag() {
    ctrlClick(18, -20);
    ctrlClick(21, -20);
    robot.moveTo(on(18, 0)).press(MouseButton.PRIMARY).moveTo(on(18, -6));
    press(KeyCode.DELETE);
    assertThat(window.session().isDragging()).isFalse();
    robot.moveTo(on(18, -9)).release(MouseButton.PRIMARY);
    assertThat(keyframes()).hasSize(1);
    assertThat(keyframes().getFirst().frame()).isGreaterThan(20L * RATE);
    assertThat(keyframes().getFirst().levelDb()).isZero();
  }

  @Test
  void aKeyframeThatIsDeletedBeforeItMovesIsHeldNoLonger() {
    ctrlClick(18, -20);
    ctrlClick(21, -20);
    robot.moveTo(on(18, 0)).press(MouseButton.PRIMARY);
    press(KeyCode.DELETE);
    robot.moveTo(on(18, -9)).release(MouseButton.PRIMARY);
    assertThat(keyframes()).hasSize(1);
    assertThat(keyframes().getFirst().levelDb()).isZero();
    assertThat(status()).doesNotStartWith("Something went wrong");
  }

  @Test
  void theKeyboardAloneShapesTheLine() {
    robot.interact(() -> window.session().seek(20L * RATE));
    press(KeyCode.K);
    press(KeyCode.DOWN);
    press(KeyCode.DOWN);
    press(KeyCode.SHIFT, KeyCode.DOWN);
    assertThat(keyframes()).hasSize(1);
    assertClose(keyframes().getFirst().levelDb(), -2.1, 1e-9);
    assertThat(keyframes().getFirst().frame()).isEqualTo(20L * RATE);
  }

  @Test
  void aSegmentsShapeIsChosenInItsDetails() {
    ctrlClick(20, -20);
    robot.interact(
        () -> {
          javafx.scene.control.ComboBox<SegmentShape> box = find("detail-shape");
          box.setValue(SegmentShape.HOLD);
        });
    assertThat(keyframes().getFirst().shape()).isEqualTo(SegmentShape.HOLD);
  }

  @Test
  void theFloorOfAHushDragsAndIsTyped() {
    Hush hush = music().hushes().get(1);
    drag(on(30, hush.depthDb()), on(30, -20));
    assertClose(music().hushes().get(1).depthDb(), -20, 0.6);
    assertThat(music().hushes().get(0).depthDb())
        .isEqualTo(project().firstTrack(TrackKind.MUSIC).orElseThrow().hushes().get(0).depthDb());
    type("detail-depth", "-8");
    assertThat(music().hushes().get(1).depthDb()).isEqualTo(-8);
    type("detail-depth", "3");
    assertThat(music().hushes().get(1).depthDb()).as("a hush goes down only").isEqualTo(-8);
    press(KeyCode.ESCAPE);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertClose(music().hushes().get(1).depthDb(), -20, 0.6);
  }

  @Test
  void fadeHandlesSetTheFadesAtBothEnds() {
    Point2D lane = on(0, 12);
    drag(
        new Point2D(on(2, 0).getX(), lane.getY() + 5),
        new Point2D(on(5, 0).getX(), lane.getY() + 5));
    Clip clip = music().clips().getFirst();
    assertClose(clip.fadeIn().lengthFrames() / (double) RATE, 5, 0.2);
    drag(
        new Point2D(on(92, 0).getX(), lane.getY() + 5),
        new Point2D(on(88, 0).getX(), lane.getY() + 5));
    assertClose(music().clips().getFirst().fadeOut().lengthFrames() / (double) RATE, 8, 0.2);
    type("detail-fade-out", "3.5");
    assertThat(music().clips().getFirst().fadeOut().lengthFrames())
        .isEqualTo(Math.round(3.5 * RATE));
  }

  @Test
  void withoutKeyframesTheLineMovesTheWholeTrackAndSaysSo() {
    robot.moveTo(on(20, 0));
    assertThat(status()).contains("whole track");
    drag(on(20, 0), on(20, -6));
    assertThat(keyframes()).isEmpty();
    assertClose(music().levelDb(), -6, 0.6);
    TextField head = find("level-music");
    assertThat(head.getText())
        .isEqualTo(hushrise.core.project.level.LevelText.format(music().levelDb()));
  }
}

package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.session.Selection;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.LevelText;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;

/** The detail area while things change under it. */
class DetailTest extends WindowTestCase {

  private Hush hush(int index) {
    return music().hushes().get(index);
  }

  private void select(Hush hush) {
    robot.interact(() -> window.session().select(new Selection.OfHush(music().id(), hush.id())));
  }

  @Test
  void aDraggedHushShowsItsNumbersInTheFieldsThatAreThere() {
    untilOpen();
    double floor = hush(1).depthDb();
    robot.moveTo(on(29, floor));
    robot.press(MouseButton.PRIMARY);
    QuickRobot.settle();
    TextField depth = find("detail-depth");
    TextField fall = find("detail-fall");
    for (int step = 1; step <= 3; step++) {
      robot.moveTo(on(29, floor - 2 * step));
      until(
          "the depth is shown", () -> depth.getText().equals(LevelText.format(hush(1).depthDb())));
    }
    assertThat(hush(1).depthDb()).isLessThan(floor - 4);
    assertThat(window.session().present().tracks()).isNotEqualTo(project().tracks());
    TextField depthNow = find("detail-depth");
    TextField fallNow = find("detail-fall");
    assertThat(depthNow).isSameAs(depth);
    assertThat(fallNow).isSameAs(fall);
    robot.release(MouseButton.PRIMARY);
    QuickRobot.settle();
    type("detail-depth", "-4");
    assertThat(hush(1).depthDb()).isEqualTo(-4);
  }

  @Test
  void whatIsBeingTypedOutlastsAnEditElsewhere() {
    untilOpen();
    select(hush(1));
    TextField fall = find("detail-fall");
    robot.clickOn(fall).push(KeyCode.CONTROL, KeyCode.A).write("0.7");
    robot.interact(() -> window.session().commit("master", p -> p.withMasterDb(-1)));
    assertThat(fall.getText()).isEqualTo("0.7");
    press(KeyCode.ENTER);
    assertThat(hush(1).turn().fallSeconds()).isEqualTo(0.7);
    TextField now = find("detail-fall");
    assertThat(now.getText()).isEqualTo("0.70 s");
  }

  @Test
  void whatWasTypedForOneIsNotGivenToAnother() {
    untilOpen();
    Hush other = hush(2);
    select(hush(1));
    TextField depth = find("detail-depth");
    robot.clickOn(depth).push(KeyCode.CONTROL, KeyCode.A).write("-3");
    select(other);
    QuickRobot.settle();
    assertThat(hush(2)).isEqualTo(other);
    assertThat(hush(1).depthDb()).isEqualTo(-3);
    TextField shown = find("detail-depth");
    assertThat(shown.getText()).isEqualTo(LevelText.format(other.depthDb()));
  }

  @Test
  void aTextThatIsNoNumberGivesTheOldValueBackAndSaysWhatIsTaken() {
    untilOpen();
    select(hush(1));
    double before = hush(1).turn().fallSeconds();
    type("detail-fall", "soon");
    TextField fall = find("detail-fall");
    assertThat(fall.getText()).isEqualTo("%.2f s".formatted(before));
    assertThat(fall.getStyleClass()).contains("wrong");
    assertThat(fall.getAccessibleHelp()).isNotBlank();
    type("detail-fall", "0.6");
    fall = find("detail-fall");
    assertThat(hush(1).turn().fallSeconds()).isEqualTo(0.6);
    assertThat(fall.getStyleClass()).doesNotContain("wrong");
  }
}

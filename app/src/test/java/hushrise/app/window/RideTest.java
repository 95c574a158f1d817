package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.play.TransportState;
import hushrise.app.session.Selection;
import hushrise.app.widget.TypedField;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.media.TrackKind;
import hushrise.core.ride.RideRule;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.shape.Path;
import org.junit.jupiter.api.Test;

/** Riding a track's level while the film plays, by mouse and keys. */
class RideTest extends WindowTestCase {

  private double seconds() {
    return window.session().playhead() / (double) RATE;
  }

  private void playTo(double seconds) {
    until("the film has played to " + seconds + " s", () -> seconds() >= seconds);
  }

  private void bare() {
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "bare",
                    p ->
                        p.withTrack(
                            music().id(), t -> t.withHushes(List.of()).withRises(List.of()))));
  }

  private Point2D handle() {
    hushrise.app.widget.Fader fader = find("fader-music");
    return fader.localToScreen(fader.xOf(fader.shownDb()), 8);
  }

  private void ride(double fromSeconds, double toSeconds, int pixels) {
    robot.interact(() -> window.session().seek(Math.round((fromSeconds - 0.4) * RATE)));
    press(KeyCode.SPACE);
    playTo(fromSeconds);
    robot.moveTo(handle());
    robot.press(MouseButton.PRIMARY);
    for (int i = 1; i <= 10; i++) {
      robot.moveBy(pixels / 10.0, 0);
      QuickRobot.settle();
    }
    playTo(toSeconds);
    robot.release(MouseButton.PRIMARY);
    playTo(toSeconds + 0.3);
    press(KeyCode.SPACE);
    untilQuiet();
  }

  private Path trail() {
    return (Path) find("lane-music").lookup(".ride-trail");
  }

  @Test
  void theHandLeavesATrailOnTheLaneUntilItIsWritten() {
    untilOpen();
    bare();
    robot.clickOn("#ride-music");
    press(KeyCode.HOME);
    press(KeyCode.SPACE);
    playTo(0.5);
    assertThat(trail().getElements()).as("nothing is touched").isEmpty();
    for (int i = 0; i < 5; i++) {
      press(KeyCode.DOWN);
    }
    until("the trail follows", () -> trail().getElements().size() > 2);
    double bottom = trail().getBoundsInLocal().getMaxY();
    assertThat(bottom).isGreaterThan(trail().getBoundsInLocal().getMinY() + 5);
    double reached = trail().getBoundsInLocal().getMaxX();
    until("it goes on", () -> trail().getBoundsInLocal().getMaxX() > reached + 3);
    press(KeyCode.SPACE);
    until("it is written", () -> trail().getElements().isEmpty());
    assertThat(keyframes()).isNotEmpty();
  }

  @Test
  void whatTheHandDidIsTheLineInOneStep() {
    untilOpen();
    bare();
    robot.clickOn("#ride-music");
    assertThat(((ToggleButton) find("ride-music")).isSelected()).isTrue();
    ride(4, 5.5, -30);
    assertThat(keyframes()).isNotEmpty();
    LevelLine line = music().line();
    assertThat(line.levelDbAt(Math.round(3.9 * RATE))).as("before the touch").isZero();
    double held = keyframes().getLast().levelDb();
    assertThat(held).isBetween(-20.0, -6.0);
    assertThat(line.levelDbAt(60L * RATE)).as("it stays").isEqualTo(held);
    assertThat(window.session().undoName()).hasValue("ride the level");
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(keyframes()).isEmpty();
    assertThat(window.session().undoName()).hasValue("bare");
  }

  @Test
  void aSecondPassReplacesWhatItTouchesAndGlidesBackWhenWished() {
    untilOpen();
    bare();
    robot.clickOn("#ride-music");
    ride(4, 5.5, -30);
    LevelLine first = music().line();
    robot.interact(() -> window.session().select(new Selection.OfTrack(music().id())));
    ComboBox<Boolean> after = find("detail-ride-after");
    robot.interact(() -> after.setValue(true));
    type("detail-ride-glide", "0.2");
    assertThat(this.<TypedField>find("detail-ride-tolerance").getText()).isEqualTo("0.5 dB");
    type("detail-ride-tolerance", "loose");
    assertThat(this.<TypedField>find("detail-ride-tolerance").getText()).isEqualTo("0.5 dB");
    type("detail-ride-tolerance", "0.01");
    assertThat(this.<TypedField>find("detail-ride-tolerance").getText()).isEqualTo("0.1 dB");
    type("detail-ride-tolerance", "0.4");
    assertThat(window.transport().riders().ruleProperty().get())
        .isEqualTo(new RideRule(0.4, true, 0.2));
    ride(10, 10.6, 20);
    LevelLine second = music().line();
    for (double s : new double[] {1, 3.9, 5, 7, 9.8, 60, 80}) {
      long frame = Math.round(s * RATE);
      assertClose(second.levelDbAt(frame), first.levelDbAt(frame), 1e-6);
    }
    assertThat(second.within(10L * RATE, 20L * RATE))
        .as("where the hand was")
        .anySatisfy(k -> assertThat(k.levelDb()).isGreaterThan(first.levelDbAt(k.frame()) + 2));
  }

  @Test
  void arrowKeysRideAndWithoutATouchNothingIsWritten() {
    untilOpen();
    bare();
    robot.clickOn(on(70, -40));
    press(KeyCode.D);
    assertThat(((ToggleButton) find("ride-music")).isSelected()).isTrue();
    press(KeyCode.HOME);
    press(KeyCode.SPACE);
    until(
        "it rides",
        () -> window.transport().stateProperty().get() instanceof TransportState.Riding);
    playTo(0.6);
    press(KeyCode.SPACE);
    assertThat(keyframes()).isEmpty();
    press(KeyCode.SPACE);
    playTo(1);
    for (int i = 0; i < 6; i++) {
      press(KeyCode.DOWN);
    }
    playTo(1.9);
    press(KeyCode.SPACE);
    untilQuiet();
    List<Keyframe> written = keyframes();
    assertThat(written).isNotEmpty();
    assertClose(music().line().levelDbAt(30L * RATE), -6, 0.2);
    assertThat(music().levelDb()).as("the track's own level stays").isZero();
    press(KeyCode.D);
    assertThat(((ToggleButton) find("ride-music")).isSelected()).isFalse();
    press(KeyCode.DOWN);
    assertThat(keyframes()).isEqualTo(written);
  }

  @Test
  void aCountIsHeardBeforeARideBegins() {
    untilOpen();
    robot.clickOn("#ride-music");
    robot.interact(() -> window.transport().riders().countInProperty().set(1));
    press(KeyCode.HOME);
    press(KeyCode.SPACE);
    assertThat(window.transport().playingProperty().get()).isFalse();
    until(
        "it rides",
        () -> window.transport().stateProperty().get() instanceof TransportState.Riding);
    press(KeyCode.SPACE);
    assertThat(window.transport().stateProperty().get().isStopped()).isTrue();
  }

  @Test
  void aRideBecomesHushes() {
    untilOpen();
    bare();
    long from = project().voiceTracks().findFirst().orElseThrow().clips().getFirst().startFrame();
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "as ridden",
                    p ->
                        p.withTrack(
                            music().id(),
                            t ->
                                t.withLine(
                                    LevelLine.of(
                                        List.of(
                                            straight(from - RATE, 0),
                                            straight(from - 9_000, -11),
                                            straight(from + 9L * RATE, -11),
                                            straight(from + 12L * RATE, 0)))))));
    Node lane = find("lane-music");
    assertThat(lane).isNotNull();
    robot.clickOn(on(70, -40));
    press(KeyCode.SHIFT, KeyCode.D);
    assertThat(music().hushes()).hasSize(1);
    assertClose(music().hushes().getFirst().depthDb(), -11, 0.6);
    assertThat(status()).contains("One hush");
  }

  @Test
  void whatNeedsATrackThatSoundsSaysSoWhereThePictureIsSelected() {
    untilOpen();
    Project before = project();
    String picture = project().firstTrack(TrackKind.PICTURE).orElseThrow().id();
    robot.interact(() -> window.session().select(new Selection.OfTrack(picture)));
    for (KeyCode[] keys :
        new KeyCode[][] {{KeyCode.SHIFT, KeyCode.D}, {KeyCode.D}, {KeyCode.K}, {KeyCode.PAGE_UP}}) {
      robot.interact(() -> window.say(""));
      press(keys);
      assertThat(status()).contains("needs a track that sounds");
    }
    assertThat(project()).isEqualTo(before);
  }

  private static Keyframe straight(long frame, double db) {
    return new Keyframe(frame, db, hushrise.core.project.level.SegmentShape.STRAIGHT);
  }
}

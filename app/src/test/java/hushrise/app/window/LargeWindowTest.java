package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.TrackEdits;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import java.lang.ref.WeakReference;
import java.util.List;
import java.util.concurrent.TimeoutException;
import java.util.prefs.BackingStoreException;
import java.util.prefs.Preferences;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;

/** A window with more room: the picture takes its part of it, and as much as a person wants. */
class LargeWindowTest extends WindowTestCase {

  private static final double LOWEST = 206;

  @BeforeEach
  void open() {
    untilOpen();
  }

  private Stage stage() {
    return (Stage) window.root().getScene().getWindow();
  }

  /** In the corner, as the headless platform’s screen is 1 000 pixels high. */
  private void size(double width, double height) {
    robot.interact(
        () -> {
          stage().setX(0);
          stage().setY(0);
          stage().setWidth(width + stage().getWidth() - window.root().getWidth());
        });
    until("the window is as wide", () -> window.root().getWidth() == width);
    robot.interact(
        () -> stage().setHeight(height + stage().getHeight() - window.root().getHeight()));
    until("the window is as high", () -> window.root().getHeight() == height);
    untilQuiet();
  }

  private Region picture() {
    return find("picture");
  }

  private Region bottom() {
    return find("bottom");
  }

  private Image shown() {
    return ((ImageView) picture().lookup(".image-view")).getImage();
  }

  /** A place on the upper edge of what lies under the timeline, on the screen. */
  private Point2D edge() {
    Bounds at = bottom().localToScreen(bottom().getBoundsInLocal());
    return new Point2D(at.getCenterX(), at.getMinY() + 3);
  }

  private void dragEdge(double by) {
    dragHolding(Held.NOTHING, "bottom", edge(), edge().add(0, by));
    untilQuiet();
  }

  private void setDensity(double density) {
    robot.interact(
        () -> {
          stage().setRenderScaleX(density);
          stage().setRenderScaleY(density);
        });
  }

  @AfterEach
  void giveTheDensityBack() {
    setDensity(1);
  }

  @Test
  void inAHighWindowTheRowOfThePictureIsHigher() {
    assertThat(bottom().getHeight()).isEqualTo(LOWEST);
    size(1000, 960);
    assertThat(bottom().getHeight()).isEqualTo(LOWEST + 0.4 * 160);
    press(KeyCode.SHIFT, KeyCode.Z);
    assertThat(bottom().getHeight()).isEqualTo(960 - 480);
    press(KeyCode.SHIFT, KeyCode.Z);
    assertThat(bottom().getHeight()).isEqualTo(LOWEST + 0.4 * 160);
  }

  @Test
  void thePictureIsDecodedAsLargeAsItIsShown() {
    double usual = picture().getWidth();
    assertThat(shown().getWidth()).isEqualTo(640);
    press(KeyCode.SHIFT, KeyCode.Z);
    assertThat(picture().getWidth()).isGreaterThan(usual);
    Region detail = find("detail");
    assertThat(detail.getWidth()).as("the others keep their room").isGreaterThan(300);
    setDensity(2.5);
    until("it is decoded larger", () -> shown().getWidth() == 1280);
    setDensity(1);
    until("it is small again", () -> shown().getWidth() == 640);
  }

  @Test
  void theEdgeAboveItDragsAndADoubleClickGivesTheUsualHeightBack() {
    dragEdge(-100);
    assertThat(bottom().getHeight()).isEqualTo(LOWEST + 100);
    dragEdge(300);
    assertThat(bottom().getHeight()).as("never lower than its parts").isEqualTo(LOWEST);
    dragEdge(-400);
    assertThat(bottom().getHeight()).as("leaves room for the tracks").isEqualTo(800 - 480);
    dragEdge(40);
    press(KeyCode.SHIFT, KeyCode.Z);
    assertThat(bottom().getHeight()).isEqualTo(800 - 480);
    press(KeyCode.SHIFT, KeyCode.Z);
    assertThat(bottom().getHeight()).as("as it was made").isEqualTo(800 - 480 - 40);
    robot.doubleClickOn(edge());
    assertThat(bottom().getHeight()).isEqualTo(LOWEST);
    press(KeyCode.SPACE);
    until("the keys still play", () -> window.session().playhead() > 0);
    press(KeyCode.SPACE);
  }

  @Test
  void rowsTakeAnotherHeightWhereTheyAreAndTheKeysStayWhereTheyWere() {
    Node head = robot.lookup(".track-head.kind-voice").query();
    assertThat(head.getStyleClass()).contains("low");
    assertThat(head.lookup("#pan-voice")).as("a low head has none").isNull();
    robot.interact(() -> find("mute-music").requestFocus());
    size(1000, 960);
    until("the head is high", () -> !head.getStyleClass().contains("low"));
    assertThat((Node) robot.lookup(".track-head.kind-voice").query()).isSameAs(head);
    assertThat(head.lookup("#pan-voice").isVisible()).isTrue();
    assertThat(find("mute-music").isFocused()).isTrue();
    press(KeyCode.SHIFT, KeyCode.W);
    assertThat(head.lookup("#level-voice").isVisible()).as("high and narrow").isTrue();
    assertThat(head.lookup("#pan-voice").isVisible()).isFalse();
    press(KeyCode.SHIFT, KeyCode.Z);
    until("the head is low again", () -> head.getStyleClass().contains("low"));
    assertThat(head.lookup("#pan-voice")).isNull();
    assertThat(head.lookup("#level-voice").isVisible()).as("low and narrow").isFalse();
    press(KeyCode.SHIFT, KeyCode.W);
    assertThat(head.lookup("#level-voice").isVisible()).isTrue();
  }

  @Test
  void rowsThatAreMadeAnewLeaveNothingBehind() throws TimeoutException {
    List<WeakReference<Node>> gone =
        robot.lookup(".track-head").queryAll().stream().map(WeakReference::new).toList();
    assertThat(gone).hasSize(project().tracks().size());
    robot.interact(
        () -> window.session().commit("add", p -> TrackEdits.add(p, TrackKind.EFFECTS, "Doors")));
    untilQuiet();
    FxToolkit.registerPrimaryStage(); // TestFX forgets what came before
    until(
        "the heads that were there are collected",
        () -> {
          System.gc();
          return gone.stream().allMatch(h -> h.refersTo(null));
        });
  }

  @Test
  void whatIsHeldStaysInTheHandWhileThePictureIsMadeLarge() {
    Node lane = find("lane-voice");
    double before = lane.getBoundsInLocal().getHeight();
    Clip take = project().firstTrack(TrackKind.VOICE).orElseThrow().clips().getFirst();
    robot.moveTo(on("lane-voice", 10, -20));
    robot.press(MouseButton.PRIMARY);
    robot.moveTo(on("lane-voice", 11, -20));
    assertThat(window.session().isDragging()).isTrue();
    long first = project().clip(take.id()).orElseThrow().startFrame();
    press(KeyCode.SHIFT, KeyCode.Z);
    assertThat(bottom().getHeight()).isEqualTo(800 - 480);
    assertThat((Node) find("lane-voice")).isSameAs(lane);
    robot.moveTo(on("lane-voice", 12, -20));
    robot.release(MouseButton.PRIMARY);
    untilQuiet();
    assertThat(window.session().isDragging()).isFalse();
    long then = project().clip(take.id()).orElseThrow().startFrame();
    assertThat(then).as("the drag went on").isGreaterThan(first + RATE / 2);
    Node anew = find("lane-voice");
    assertThat(anew.getBoundsInLocal().getHeight()).as("then it is lower").isLessThan(before);
  }

  @Test
  void theNextTimeTheWindowStandsWhereItStood() throws BackingStoreException {
    Preferences kept = Preferences.userNodeForPackage(WindowPlace.class).node("place-test");
    WindowPlace place = new WindowPlace(kept, stage(), window);
    size(1000, 700);
    dragEdge(-40);
    double bottom = window.bottomHeightProperty().get();
    assertThat(bottom).isGreaterThan(LOWEST);
    robot.interact(place::keep);
    size(900, 620);
    robot.interact(() -> window.bottomHeightProperty().set(0));
    robot.interact(() -> place.restore(1280, 800));
    until("it has its size back", () -> window.root().getHeight() == 700);
    assertThat(window.root().getWidth()).isEqualTo(1000);
    assertThat(window.bottomHeightProperty().get()).isEqualTo(bottom);
    kept.removeNode();
  }
}

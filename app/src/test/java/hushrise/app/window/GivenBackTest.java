package hushrise.app.window;

import static hushrise.app.words.Texts.text;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.session.Selection;
import hushrise.app.widget.Fader;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import java.util.function.DoubleSupplier;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Whatever is dragged, Esc gives it back while the button is still held. */
class GivenBackTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
  }

  /** Drags something that Esc gives back half-way, and goes on as if nothing had been. */
  private void givenBack(Held key, String nodeId, Point2D from, double by, DoubleSupplier what) {
    givenBack(key, nodeId, from, from.add(by, 0), what);
  }

  private void givenBack(Held key, String nodeId, Point2D from, Point2D to, DoubleSupplier what) {
    double before = what.getAsDouble();
    Project project = project();
    dragHolding(
        key,
        nodeId,
        from,
        to,
        () -> {
          until("it has moved", () -> what.getAsDouble() != before);
          press(KeyCode.ESCAPE);
          until("it is back", () -> what.getAsDouble() == before);
          assertThat(status()).isEqualTo(text("drag.givenBack"));
        });
    assertThat(what.getAsDouble()).as("it stays where it was").isEqualTo(before);
    assertThat(project()).isEqualTo(project);
    assertThat(window.session().isDragging()).isFalse();
  }

  /** A marker at 20 s, and a place on its flag. */
  private Point2D flag() {
    robot.interact(() -> window.session().seek(20L * RATE));
    press(KeyCode.M);
    robot.interact(() -> window.session().seek(0));
    Node ruler = find("ruler");
    return ruler.localToScreen(window.view().axis().xOf(20L * RATE) + 12, 5);
  }

  private double markerSeconds() {
    return window.session().shown().markers().getFirst().frame() / (double) RATE;
  }

  @Test
  void aMarker() {
    givenBack(Held.CTRL, "ruler", flag(), 160, this::markerSeconds);
    assertThat(window.session().undoName()).hasValue("add marker");
  }

  @Test
  void aMarkerGoesAsFarAsTheHandThatHoldsItsFlag() {
    Point2D flag = flag();
    dragHolding(Held.NOTHING, "ruler", flag, flag.add(2, 0));
    assertThat(markerSeconds()).as("a hand that trembles moves nothing").isEqualTo(20);
    dragHolding(Held.CTRL, "ruler", flag, flag.add(90, 0));
    double pixel = window.view().axis().framesPerPixel() / RATE;
    assertClose(markerSeconds(), 20 + 90 * pixel, pixel);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(markerSeconds()).as("in one step").isEqualTo(20);
  }

  @Test
  void theLevelOfTheMix() {
    Fader mix = find("fader-master");
    Point2D handle = mix.localToScreen(mix.xOf(mix.shownDb()), 7);
    givenBack(Held.NOTHING, "fader-master", handle, -60, mix::shownDb);
  }

  @Test
  void theWidthOfTheHeads() {
    Region head = find(music().id());
    Point2D side = head.localToScreen(head.getWidth() - 2, 30);
    givenBack(Held.NOTHING, music().id(), side, 60, head::getWidth);
  }

  @Test
  void theHeightOfTheBottomRow() {
    Region bottom = find("bottom");
    Point2D edge = bottom.localToScreen(bottom.getWidth() / 2, 3);
    givenBack(Held.NOTHING, "bottom", edge, edge.add(0, -120), bottom::getHeight);
    assertThat(window.bottomHeightProperty().get()).as("none of its own").isZero();
  }

  @Test
  void aStretchOfTimeThatIsDrawn() {
    givenBack(
        Held.SHIFT,
        "lane-music",
        on(30, -30),
        100,
        () -> window.session().selection() instanceof Selection.OfSpan ? 1 : 0);
  }

  @Test
  void aRowThatIsTakenAwayWhileItIsHeldLeavesTheOthersFree() {
    robot.interact(
        () ->
            window.session().commit("add", p -> TrackEdits.add(p, TrackKind.MUSIC, "Second bed")));
    untilQuiet();
    Region bed = find(project().tracks().getLast().id());
    Point2D at = bed.localToScreen(20, 20);
    dragHolding(Held.NOTHING, bed.getId(), at, at, () -> press(KeyCode.CONTROL, KeyCode.Z));
    Region lane = find("lane-music");
    double before = lane.getHeight();
    robot.interact(() -> window.bottomHeightProperty().set(300));
    until("the rows share what is left", () -> lane.getHeight() < before - 10);
  }
}

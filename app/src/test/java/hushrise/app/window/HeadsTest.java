package hushrise.app.window;

import static hushrise.app.words.Texts.text;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.listen.Hearing;
import hushrise.app.session.Selection;
import hushrise.app.widget.Fader;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.Region;
import org.junit.jupiter.api.Test;

/** The heads of the tracks are the mixer; the mix has its own. */
class HeadsTest extends WindowTestCase {

  private Point2D handle(String fader) {
    Fader f = find(fader);
    return f.localToScreen(f.xOf(f.shownDb()), 7);
  }

  private Point2D at(String fader, double db) {
    Fader f = find(fader);
    return f.localToScreen(f.xOf(db), 7);
  }

  private Track voice() {
    return project().firstTrack(TrackKind.VOICE).orElseThrow();
  }

  @Test
  void aFaderIsDraggedInOneStepAndEscGivesItBack() {
    untilOpen();
    drag(handle("fader-music"), at("fader-music", -12));
    assertClose(music().levelDb(), -12, 0.8);
    assertThat(window.session().undoName()).hasValue("set track level");
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(music().levelDb()).isZero();
    robot.moveTo(handle("fader-music"));
    robot.press(MouseButton.PRIMARY);
    robot.moveTo(at("fader-music", -20));
    press(KeyCode.ESCAPE);
    robot.release(MouseButton.PRIMARY);
    assertThat(music().levelDb()).isZero();
    assertThat(window.session().isDragging()).isFalse();
    press(KeyCode.SPACE);
    until("the keys are the timeline's", () -> window.transport().playingProperty().get());
  }

  @Test
  void aDoubleClickOnAFaderTypesALevel() {
    untilOpen();
    robot.doubleClickOn(handle("fader-voice"));
    robot.write("-4.5").push(KeyCode.ENTER);
    assertThat(voice().levelDb()).isEqualTo(-4.5);
    press(KeyCode.SPACE);
    assertThat(window.transport().playingProperty().get()).isTrue();
  }

  @Test
  void panIsDraggedAndPutInTheMiddle() {
    untilOpen();
    Slider pan = find("pan-music");
    Node thumb = pan.lookup(".thumb");
    drag(robot.point(thumb).query(), robot.point(thumb).query().add(pan.getWidth() * 0.3, 0));
    assertThat(music().pan()).isBetween(0.3, 1.0);
    assertThat(window.session().undoName()).hasValue("set pan");
    robot.interact(() -> pan.setValue(0));
    assertThat(music().pan()).isZero();
  }

  @Test
  void escGivesAPanBackThoughThePointerStillHoldsIt() {
    untilOpen();
    Slider pan = find("pan-music");
    Point2D thumb = robot.point(pan.lookup(".thumb")).query();
    robot.moveTo(thumb).press(MouseButton.PRIMARY).moveTo(thumb.add(pan.getWidth() * 0.3, 0));
    assertThat(music().pan()).isGreaterThan(0.3);
    press(KeyCode.ESCAPE);
    assertThat(music().pan()).isZero();
    assertThat(status()).isEqualTo(text("drag.givenBack"));
    robot.moveTo(thumb.add(3, 0)); // still on the handle: a release goes to what lies under it here
    assertThat(pan.getValue()).isZero();
    robot.release(MouseButton.PRIMARY);
    assertThat(music().pan()).isZero();
    assertThat(window.session().isDragging()).isFalse();
    drag(thumb, thumb.add(pan.getWidth() * 0.3, 0));
    assertThat(music().pan()).isGreaterThan(0.3);
  }

  @Test
  void aPanThatIsNearlyInTheMiddleStaysWhereItIsAsLongAsNobodyMovesIt() {
    untilOpen();
    String id = music().id();
    robot.interact(
        () -> window.session().commit("from elsewhere", p -> TrackEdits.setPan(p, id, 0.02)));
    assertThat(music().pan()).isEqualTo(0.02);
    assertThat(window.session().undoName()).hasValue("from elsewhere");
  }

  @Test
  void theRowsLowerEdgePullsTheLaneAlongAndEscapeGivesItBack() {
    untilOpen();
    Region head = find(music().id());
    Region lane = find("lane-music");
    double before = lane.getHeight();
    Point2D edge = head.localToScreen(40, head.getHeight() - 2);
    robot.moveTo(edge).press(MouseButton.PRIMARY).moveTo(edge.add(0, -20));
    until("the lane is lower", () -> lane.getHeight() == before - 20);
    press(KeyCode.ESCAPE);
    until("it is as it was", () -> lane.getHeight() == before);
    robot.moveTo(edge.add(0, -30)).release(MouseButton.PRIMARY);
    assertThat(lane.getHeight()).isEqualTo(before);
    assertThat(music().rowHeight()).as("no height of its own").isZero();
    robot.moveTo(edge).press(MouseButton.PRIMARY).moveTo(edge.add(0, -20));
    robot.release(MouseButton.PRIMARY);
    until("the lane stays lower", () -> lane.getHeight() == before - 20);
    assertThat(music().rowHeight()).isEqualTo((int) before - 20);
    press(KeyCode.CONTROL, KeyCode.Z);
    until("undone", () -> lane.getHeight() == before);
  }

  @Test
  void narrowHeadsKeepFaderAndMeter() {
    untilOpen();
    press(KeyCode.SHIFT, KeyCode.W);
    assertThat(find("mute-music").isVisible()).isFalse();
    Fader fader = find("fader-music");
    assertThat(fader.isVisible()).isTrue();
    assertThat(fader.getWidth()).isGreaterThan(50);
    Region head = robot.lookup(".track-head.kind-music").query();
    until("the heads are narrow", () -> head.getWidth() < 95);
    Point2D edge = head.localToScreen(90, 40);
    dragHolding(Held.SHIFT, music().id(), edge, edge.add(140, 0));
    until("the heads are wide", () -> head.getWidth() > 200);
    assertThat(find("mute-music").isVisible()).isTrue();
    drag(handle("fader-music"), at("fader-music", -9));
    assertClose(music().levelDb(), -9, 0.8);
  }

  @Test
  void metersMoveWhileTheFilmPlaysAndAMarkLeadsToWhereItWasOver() {
    untilOpen();
    robot.interact(
        () -> window.session().commit("loud", p -> LevelEdits.setTrackLevel(p, music().id(), 12)));
    robot.interact(() -> window.session().seek(20L * RATE));
    press(KeyCode.SPACE);
    until("the music is over", () -> window.meters().track(music().id()).over().isPresent());
    assertThat(window.meters().track(music().id()).db(0)).isGreaterThan(-20);
    assertThat(window.meters().mix().highestDb()).isGreaterThan(-20);
    until("the loudness is live", () -> window.meters().shortTermLufs() > -40);
    press(KeyCode.SPACE);
    press(KeyCode.HOME);
    long over = window.meters().track(music().id()).over().orElseThrow();
    Fader fader = find("fader-music");
    robot.clickOn(fader.localToScreen(fader.getWidth() - 5, 8));
    assertThat(window.session().playhead()).isEqualTo(over);
    assertThat(window.meters().track(music().id()).over()).isEmpty();
  }

  /** Waits until the marks have stood as they are for half a second. */
  private void untilMarksStand() {
    AtomicReference<List<Node>> seen = new AtomicReference<>(List.of());
    AtomicLong since = new AtomicLong(System.nanoTime());
    until(
        "the marks stand",
        () -> {
          List<Node> now = List.copyOf(robot.lookup(".hot-mark").queryAll());
          if (!now.equals(seen.getAndSet(now))) {
            since.set(System.nanoTime());
          }
          return now.size() > 2 && System.nanoTime() - since.get() > 500_000_000L;
        });
  }

  @Test
  void whatIsHotIsMarkedAndAPressOffersToLowerIt() {
    untilOpen();
    robot.interact(
        () -> window.session().commit("loud", p -> LevelEdits.setTrackLevel(p, music().id(), 9)));
    untilQuiet();
    until(
        "the music is hot",
        () ->
            window
                .hearing()
                .now()
                .filter(n -> n.judged().equals(project()))
                .map(Hearing.Now::hotSpots)
                .filter(h -> !h.get(music().id()).isEmpty())
                .isPresent());
    untilMarksStand();
    Point2D[] at = new Point2D[1];
    until(
        "a mark can be pressed",
        () -> {
          List<Node> marks = List.copyOf(robot.lookup(".hot-mark").queryAll());
          at[0] = marks.size() > 2 ? marks.get(2).localToScreen(0, 3) : null;
          return at[0] != null;
        });
    double gain = music().clips().getFirst().gainDb();
    robot.clickOn(at[0]);
    robot.clickOn("#menu-hot-lower");
    assertThat(music().clips().getFirst().gainDb()).isLessThan(gain - 1);
    assertThat(window.session().undoName()).hasValue("lower a clip");
  }

  @Test
  void oneStepBringsEverythingToASafeLevel() {
    untilOpen();
    robot.interact(
        () -> window.session().commit("loud", p -> LevelEdits.setTrackLevel(p, music().id(), 9)));
    untilQuiet();
    press(KeyCode.ESCAPE);
    press(KeyCode.SHIFT, KeyCode.L);
    until("it is said", () -> status().contains("safe level"));
    untilQuiet();
    assertThat(window.session().undoName()).hasValue("bring to a safe level");
    until(
        "nothing is hot",
        () ->
            window
                .hearing()
                .now()
                .filter(n -> n.hotSpots().values().stream().allMatch(java.util.List::isEmpty))
                .isPresent());
    assertThat(robot.lookup(".hot-mark").queryAll()).isEmpty();
  }

  @Test
  void theNumbersOfASafeLevelAreThoseThatAreShown() {
    untilOpen();
    Track voice = project().firstTrack(TrackKind.VOICE).orElseThrow();
    String take = voice.clips().getFirst().id();
    robot.interact(() -> window.session().select(new Selection.OfClip(voice.id(), take)));
    press(KeyCode.SHIFT, KeyCode.L);
    until("it is said", () -> status().contains("safe level"));
    double usual = project().clip(take).orElseThrow().gainDb();
    robot.interact(() -> window.run(CommandId.SAFE_NUMBERS));
    TextField lufs = find("safe-VOICE");
    assertThat(lufs.isFocused()).isTrue();
    robot.clickOn(lufs).push(KeyCode.CONTROL, KeyCode.A).write("0");
    assertThat(lufs.getStyleClass()).contains("wrong");
    press(KeyCode.TAB);
    assertThat(lufs.getText()).isEqualTo("\u221220.0");
    assertThat(status()).contains("\u201c0\u201d was not taken. This takes a number from");
    robot.clickOn(lufs).push(KeyCode.CONTROL, KeyCode.A).write("x");
    press(KeyCode.ENTER);
    assertThat(lufs.getText()).isEqualTo("\u221220.0");
    assertThat(lufs.getStyleClass()).contains("wrong");
    assertThat(status()).contains("\u201cx\u201d was not taken.");
    robot.write("-28");
    press(KeyCode.ENTER);
    assertThat(lufs.getText()).isEqualTo("\u221228.0");
    assertThat(lufs.getStyleClass()).doesNotContain("wrong");
    assertThat(status()).isEmpty();
    robot.write("-29");
    press(KeyCode.ENTER);
    assertThat(lufs.getText()).isEqualTo("\u221229.0");
    press(KeyCode.ESCAPE);
    press(KeyCode.SHIFT, KeyCode.L);
    until("it is softer", () -> project().clip(take).orElseThrow().gainDb() < usual - 1);
    assertClose(project().clip(take).orElseThrow().gainDb(), usual - 9, 0.02);
  }

  @Test
  void theFilmsLoudnessFollowsEveryEditAndItsHistoryLeadsToPlaces() {
    untilOpen();
    Label film = find("mix-film");
    until("the film is measured", () -> film.getText().endsWith("LUFS"));
    double before = figure(film);
    robot.interact(() -> window.session().commit("soft", p -> LevelEdits.setMaster(p, -6)));
    until("it is 6 dB lower", () -> Math.abs(figure(film) - (before - 6)) < 0.11);
    Node history = find("loudness-history");
    robot.clickOn(history);
    assertClose(window.session().playhead() / (double) project().lengthFrames(), 0.5, 0.01);
  }

  private static double figure(Label label) {
    return Double.parseDouble(label.getText().replace('\u2212', '-').split(" ")[0]);
  }
}

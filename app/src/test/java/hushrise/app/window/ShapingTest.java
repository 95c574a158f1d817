package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.session.Selection;
import hushrise.core.edit.HushEdits;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FadeShape;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.speech.Passages;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Hushes, rises, spans and groups of keyframes, by mouse and by keys. */
class ShapingTest extends WindowTestCase {

  private int actions;

  @BeforeEach
  void open() {
    untilOpen();
  }

  private Hush hush(int number) {
    return music().hushes().get(number - 1);
  }

  private void withoutShaping() {
    robot.interact(() -> window.session().commit("bare", HushEdits::withoutHushes));
  }

  private void playheadTo(double seconds) {
    robot.interact(() -> window.session().seek(Math.round(seconds * RATE)));
  }

  private static double seconds(long frames) {
    return frames / (double) RATE;
  }

  @Test
  void aStretchIsChosenWithShiftAndItsLineDraggedDown() {
    withoutShaping();
    dragHolding(Held.SHIFT, "lane-music", on(50, -30), on(60, -30));
    assertThat(window.session().selection()).isInstanceOf(Selection.OfSpan.class);
    drag(on(55, 0), on(55, -9));
    List<Keyframe> keyframes = keyframes();
    assertThat(keyframes).hasSize(4);
    assertClose(seconds(keyframes.get(1).frame()), 50, 0.2);
    assertClose(seconds(keyframes.get(1).frame() - keyframes.get(0).frame()), 0.35, 0.01);
    assertClose(seconds(keyframes.get(3).frame() - keyframes.get(2).frame()), 0.90, 0.01);
    assertClose(keyframes.get(1).levelDb(), -9, 0.6);
    press(KeyCode.UP);
    assertClose(keyframes().get(2).levelDb(), keyframes.get(2).levelDb() + 1, 1e-9);
    press(KeyCode.CONTROL, KeyCode.C);
    playheadTo(70);
    press(KeyCode.CONTROL, KeyCode.V);
    assertThat(keyframes()).hasSize(6);
    playheadTo(92);
    press(KeyCode.CONTROL, KeyCode.V);
    assertThat(keyframes()).as("a paste over the end changes nothing").hasSize(6);
    assertThat(status()).contains("playhead earlier");
    press(KeyCode.DELETE);
    assertThat(keyframes()).hasSize(4);
  }

  @Test
  void theHushOfAPassageIsMeasuredAndEveryNumberOfItIsTyped() {
    withoutShaping();
    playheadTo(28);
    press(KeyCode.H);
    until("the hush is there", () -> music().hushes().size() == 1);
    PassageLoudness measured =
        PassageLoudness.measure(project(), store, List.of(hush(1).passage())).getFirst();
    assertClose(measured.separationLu(), 10, 0.1);
    double depth = hush(1).depthDb();
    type("detail-depth", "by -3");
    assertClose(hush(1).depthDb(), depth - 3, 1e-9);
    type("detail-lead", "-0.1");
    type("detail-fall", "0.5");
    type("detail-tail", "0,2 s");
    type("detail-recovery", "1.4");
    assertThat(hush(1).turn()).isEqualTo(new hushrise.core.project.level.Turn(-0.1, 0.5, 0.2, 1.4));
    type("detail-fall", "-1");
    assertThat(hush(1).turn().fallSeconds()).isEqualTo(0.5);
    TextField fall = find("detail-fall");
    assertThat(fall.getStyleClass()).contains("wrong");
    press(KeyCode.ESCAPE);
    assertThat(fall.getStyleClass()).doesNotContain("wrong");
    playheadTo(48);
    press(KeyCode.H);
    until("the next one is there", () -> music().hushes().size() == 2);
    assertThat(hush(2).turn()).as("begins with the last times").isEqualTo(hush(1).turn());
  }

  @Test
  void floorSidesAndCornersOfAHushDrag() {
    Hush before = hush(2);
    Hush.Knots k = before.knots(RATE);
    double middle = seconds((k.floorStart() + k.floorEnd()) / 2);
    robot.clickOn(on(middle, before.depthDb()));
    drag(on(seconds(k.floorStart()), before.depthDb() / 2), on(seconds(k.floorStart()) - 2, -5));
    assertClose(seconds(hush(2).startFrame()), seconds(before.startFrame()) - 2, 0.2);
    drag(on(seconds(k.end()), 0), on(seconds(k.end()) + 2, 0));
    assertClose(hush(2).turn().recoverySeconds(), before.turn().recoverySeconds() + 2, 0.2);
    assertThat(hush(2).depthDb()).isEqualTo(before.depthDb());
    press(KeyCode.DOWN);
    assertThat(hush(2).depthDb()).isEqualTo(before.depthDb() - 1);
    press(KeyCode.SHIFT, KeyCode.N);
    assertThat(hush(3).depthDb()).isEqualTo(hush(2).depthDb());
    assertThat(hush(3).turn()).isEqualTo(hush(2).turn());
    playheadTo(8);
    press(KeyCode.P);
    long first = Passages.of(project()).getFirst().startFrame();
    assertThat(music().hushes().stream().filter(h -> h.startFrame() == first)).hasSize(2);
    press(KeyCode.CONTROL, KeyCode.Z);
    press(KeyCode.SHIFT, KeyCode.M);
    assertThat(music().hushes()).hasSize(3);
    assertThat(keyframes()).hasSize(4);
  }

  @Test
  void aRiseFillsTheGapAndItsTopDrags() {
    robot.interact(
        () ->
            window.session().commit("no rise", p -> p.withEachTrack(t -> t.withRises(List.of()))));
    playheadTo(20);
    press(KeyCode.U);
    Rise rise = music().rises().getFirst();
    assertThat(rise.startFrame()).isEqualTo(hush(1).knots(RATE).floorEnd());
    assertThat(rise.endFrame()).isEqualTo(hush(2).knots(RATE).floorStart());
    drag(on(20, rise.heightDb()), on(20, 6));
    assertClose(music().rises().getFirst().heightDb(), 6, 0.6);
    type("detail-height", "4.5");
    assertThat(music().rises().getFirst().heightDb()).isEqualTo(4.5);
    long top = music().rises().getFirst().knots(RATE).floorStart();
    press(KeyCode.SHIFT, KeyCode.B);
    long onBeat = music().rises().getFirst().knots(RATE).floorStart();
    assertThat(onBeat).isNotEqualTo(top);
    assertThat(music().rises().getFirst().endFrame()).isEqualTo(rise.endFrame());
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(music().rises().getFirst().knots(RATE).floorStart()).isEqualTo(top);
    playheadTo(30);
    press(KeyCode.U);
    assertThat(status()).contains("no gap");
    press(KeyCode.DELETE);
    assertThat(music().rises()).isEmpty();
  }

  @Test
  void severalKeyframesMoveTogetherAndCtrlFreesTheAxis() {
    withoutShaping();
    for (double t : new double[] {40, 44, 48}) {
      ctrlClick(t, -25);
    }
    dragHolding(Held.SHIFT, "lane-music", on(44, 0), on(44, 0));
    assertThat(((Selection.OfKeyframe) window.session().selection()).all()).hasSize(2);
    type("detail-keyframe", "by -4");
    assertThat(keyframes()).extracting(Keyframe::levelDb).containsExactly(0.0, -4.0, -4.0);
    press(KeyCode.ALT, KeyCode.RIGHT);
    assertClose(seconds(keyframes().get(1).frame()), 44 + 1 / 25.0, 0.2);
    robot.clickOn(on(40, 0));
    press(KeyCode.PAGE_DOWN);
    press(KeyCode.PAGE_UP);
    playheadTo(0);
    press(KeyCode.PAGE_DOWN);
    assertThat(window.session().playhead()).isEqualTo(keyframes().getFirst().frame());
    press(KeyCode.SHIFT, KeyCode.K);
    assertThat(keyframes()).isEmpty();
  }

  @Test
  void heldKeysShowTheTrackWithoutItsShaping() {
    robot.press(KeyCode.W);
    until("the hushes are away", () -> music().hushes().isEmpty());
    robot.release(KeyCode.W);
    until("they are back", () -> music().hushes().size() == 4);
    assertThat(window.session().undoName()).isEmpty();
    robot.clickOn(on(92, 3), javafx.scene.input.MouseButton.SECONDARY);
    press(KeyCode.ESCAPE);
    press(KeyCode.SHIFT, KeyCode.X);
    double was = hush(1).depthDb();
    robot.interact(
        () ->
            window
                .session()
                .commit("deeper", p -> HushEdits.change(p, hush(1).id(), h -> h.withDepthDb(-20))));
    press(KeyCode.X);
    assertThat(hush(1).depthDb()).isEqualTo(was);
    press(KeyCode.X);
    assertThat(hush(1).depthDb()).isEqualTo(-20);
  }

  @Test
  void fadesAreShapedTypedAndRefusedWhenTheyAreTooLong() {
    robot.clickOn(on(60, -30));
    ComboBox<FadeShape> shape = find("detail-fade-out-shape");
    robot.interact(() -> shape.setValue(FadeShape.S));
    Clip clip = music().clips().getFirst();
    assertThat(clip.fadeOut().shape()).isEqualTo(FadeShape.S);
    type("detail-fade-out", "95");
    assertThat(music().clips().getFirst().fadeOut()).isEqualTo(clip.fadeOut());
    assertThat(status()).contains("longer than the clip");
    playheadTo(90);
    press(KeyCode.F);
    assertThat(seconds(music().clips().getFirst().fadeOut().lengthFrames())).isEqualTo(6.0);
    robot.clickOn("#detail-fade-both");
    assertThat(music().clips().getFirst().fadeIn()).isEqualTo(music().clips().getFirst().fadeOut());
  }

  @Test
  void theSumAtThePlayheadIsShownTermByTerm() {
    robot.clickOn(robot.lookup(".track-head.kind-music").query().lookup(".track-name"));
    playheadTo(30);
    String sum = ((Labeled) find("level-sum")).getText();
    assertThat(sum).contains("hush").contains("heard");
    assertThat(sum).contains(hushrise.core.project.level.LevelText.format(hush(2).depthDb()));
    playheadTo(20);
    assertThat(((Labeled) find("level-sum")).getText()).isNotEqualTo(sum);
  }

  private void does(Runnable action) {
    action.run();
    actions++;
  }

  @Test
  void threeDipsASwellAndTwoFadesTakeUnderTwentyActions() {
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "raw",
                    p ->
                        HushEdits.withoutHushes(p)
                            .withEachTrack(
                                t ->
                                    t.withClips(
                                        t.clips().stream()
                                            .map(
                                                c ->
                                                    c.withFadeIn(
                                                            hushrise.core.project.timeline.Fade
                                                                .NONE)
                                                        .withFadeOut(
                                                            hushrise.core.project.timeline.Fade
                                                                .NONE))
                                            .toList()))));
    double[] passages = {8, 28, 48};
    for (int i = 0; i < passages.length; i++) {
      int wanted = i + 1;
      double at = passages[i];
      does(() -> robot.clickOn(on("ruler", at, 0).getX(), robot.point("#ruler").query().getY()));
      does(() -> press(KeyCode.H));
      until("hush " + wanted, () -> music().hushes().size() == wanted);
    }
    does(() -> robot.clickOn(on("ruler", 20, 0).getX(), robot.point("#ruler").query().getY()));
    does(() -> press(KeyCode.U));
    Point2D top = on(0, 12);
    double edge = on(0, 0).getX() + 1;
    does(
        () ->
            drag(new Point2D(edge, top.getY() + 5), new Point2D(on(3, 0).getX(), top.getY() + 5)));
    double end = on(96, 0).getX() - 1;
    does(
        () ->
            drag(new Point2D(end, top.getY() + 5), new Point2D(on(92, 0).getX(), top.getY() + 5)));
    assertThat(actions).isLessThan(20).isEqualTo(10);
    assertThat(music().rises()).hasSize(1);
    assertClose(seconds(music().clips().getFirst().fadeIn().lengthFrames()), 3, 0.3);
    assertClose(seconds(music().clips().getFirst().fadeOut().lengthFrames()), 4, 0.3);
    PassageLoudness.measure(project(), store, Passages.of(project()).subList(0, 3))
        .forEach(m -> assertThat(m.separationLu()).isBetween(9.9, 10.2));
    assertThat(project().firstTrack(TrackKind.MUSIC).orElseThrow().hushes()).hasSize(3);
  }
}

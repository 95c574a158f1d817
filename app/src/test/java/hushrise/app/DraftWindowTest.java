package hushrise.app;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.hush.HushDraft;
import hushrise.core.project.Clip;
import hushrise.core.project.Hush;
import hushrise.core.project.HushNumber;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.TrackKind;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Drafting, following the speech, and passages, by mouse and keys. */
class DraftWindowTest extends WindowTestCase {

  private List<Hush> hushes() {
    return music().hushes();
  }

  private void untilDrafted() {
    until("a draft is shown", () -> window.session().draft().isPresent());
    untilQuiet();
  }

  private void withoutHushes() {
    robot.interact(
        () ->
            window
                .session()
                .commit("bare", p -> p.withTrack(music().id(), t -> t.withHushes(List.of()))));
    untilQuiet();
  }

  private List<Clip> takes() {
    return project().firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime();
  }

  @Test
  void aDraftIsShownThenTakenOrLeft() {
    untilOpen();
    withoutHushes();
    Project bare = window.session().present();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    assertThat(hushes()).hasSize(4);
    assertThat(window.session().present()).isEqualTo(bare);
    assertThat(((Labeled) find("draft-counts")).getText()).startsWith("4 new");
    press(KeyCode.ESCAPE);
    assertThat(window.session().draft()).isEmpty();
    assertThat(project()).isEqualTo(bare);
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    press(KeyCode.ENTER);
    assertThat(window.session().draft()).isEmpty();
    assertThat(window.session().present().track(music().id()).orElseThrow().hushes()).hasSize(4);
    untilQuiet();
    assertThat(
            window.hearing().now().orElseThrow().separation().worst().orElseThrow().separationLu())
        .isBetween(9.7, 12.3);
    robot.interact(window::undo);
    assertThat(project()).isEqualTo(bare);
  }

  @Test
  void theRuleCanBeChangedWhileTheDraftIsShown() {
    untilOpen();
    withoutHushes();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    double ten = hushes().getFirst().depthDb();
    type("draft-separation", "14");
    until("it is drafted anew", () -> hushes().getFirst().depthDb() < ten - 3);
    type("draft-fixed", "-8");
    until("all go to one depth", () -> hushes().stream().allMatch(h -> h.depthDb() == -8));
    type("draft-fixed", "deep");
    assertThat(((TextField) find("draft-fixed")).getStyleClass()).contains("wrong");
    CheckBox rises = find("draft-rises");
    robot.clickOn(rises);
    untilQuiet();
    assertThat(music().rule().orElseThrow().rises()).isPresent();
    ComboBox<?> tracks = find("draft-track");
    robot.interact(() -> tracks.getSelectionModel().select(1));
    robot.clickOn("#draft-hush-too");
    untilQuiet();
    assertThat(project().firstTrack(TrackKind.EFFECTS).orElseThrow().rule()).isPresent();
    robot.clickOn("#draft-take");
    assertThat(window.session().present().track(music().id()).orElseThrow().rule()).isPresent();
    assertThat(window.session().undoName()).contains("draft of hushes");
  }

  @Test
  void aNumberSetByHandIsKeptAndGivenBack() {
    untilOpen();
    Hush first = hushes().getFirst();
    robot.interact(() -> window.session().select(new Selection.OfHush(music().id(), first.id())));
    type("detail-depth", "-4");
    type("detail-recovery", "2");
    assertThat(hushes().getFirst().byHand())
        .containsExactlyInAnyOrder(HushNumber.DEPTH, HushNumber.RECOVERY);
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "louder", p -> p.withTrack(music().id(), t -> t.withLevelDb(t.levelDb() + 2))));
    press(KeyCode.ESCAPE);
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    press(KeyCode.ENTER);
    assertThat(hushes().getFirst().depthDb()).isEqualTo(-4);
    assertThat(hushes().getFirst().turn().recoverySeconds()).isEqualTo(2);
    assertThat(hushes().get(1).depthDb()).isLessThan(-11);
    robot.interact(() -> window.session().select(new Selection.OfHush(music().id(), first.id())));
    robot.interact(() -> window.run("hush.forget"));
    untilQuiet();
    assertThat(hushes().getFirst().byHand()).isEmpty();
    assertClose(hushes().getFirst().depthDb(), first.depthDb() - 2, 0.2);
    assertThat(hushes().getFirst().turn().recoverySeconds()).isEqualTo(0.9);
  }

  @Test
  void hushesFollowTheNarrationInTheSameStep() {
    untilOpen();
    Project before = project();
    List<Span> were = hushes().stream().map(Hush::passage).toList();
    Clip second = takes().get(1);
    double middle = (second.startFrame() + second.endFrame()) / 2.0 / RATE;
    robot.interact(() -> window.session().snapsProperty().set(false));
    drag(on("lane-voice", middle, -20), on("lane-voice", middle + 4, -20));
    untilQuiet();
    long by = takes().get(1).startFrame() - second.startFrame();
    assertThat(by).isBetween(3L * RATE, 5L * RATE);
    assertThat(hushes().get(1).startFrame()).isEqualTo(were.get(1).startFrame() + by);
    assertThat(hushes().get(0).passage()).isEqualTo(were.get(0));
    robot.interact(window::undo);
    assertThat(project()).isEqualTo(before);
    robot.interact(
        () ->
            window
                .session()
                .commit("d", p -> ClipEdits.delete(p, Set.of(second.id()), false, true)));
    assertThat(hushes()).hasSize(3);
    robot.interact(window::undo);
    assertThat(hushes()).hasSize(4);
  }

  private Point2D onBar(double seconds) {
    Node lane = find("lane-voice");
    Bounds bounds = lane.localToScreen(lane.getBoundsInLocal());
    return new Point2D(
        bounds.getMinX() + window.view().axis().xOf(seconds * RATE), bounds.getMaxY() - 4);
  }

  private List<Span> speechOfFirst() {
    return project().media(takes().getFirst().mediaId()).flatMap(Media::speech).orElseThrow();
  }

  @Test
  void passagesAreShownDraggedSplitJoinedAddedAndDeleted() {
    untilOpen();
    Clip first = takes().getFirst();
    double start = first.startFrame() / (double) RATE;
    double speechStart =
        start + (speechOfFirst().getFirst().startFrame() - first.mediaStartFrame()) / (double) RATE;
    Span was = speechOfFirst().getFirst();
    long hushWas = hushes().getFirst().startFrame();
    drag(onBar(speechStart), onBar(speechStart + 1));
    long by = speechOfFirst().getFirst().startFrame() - was.startFrame();
    assertThat(by).isBetween(RATE / 2L, RATE * 3L / 2);
    assertThat(hushes().getFirst().startFrame()).isEqualTo(hushWas + by);
    assertThat(hushes().getFirst().byHand()).isEmpty();
    robot.interact(window::undo);
    robot.clickOn(onBar(speechStart + 3));
    assertThat(window.session().selection()).isInstanceOf(Selection.OfPassage.class);
    robot.interact(() -> window.session().seek(Math.round((speechStart + 3) * RATE)));
    press(KeyCode.SHIFT, KeyCode.SLASH);
    assertThat(speechOfFirst()).hasSize(2);
    press(KeyCode.SHIFT, KeyCode.I);
    assertThat(speechOfFirst()).containsExactly(was);
    press(KeyCode.DELETE);
    assertThat(speechOfFirst()).isEmpty();
    assertThat(hushes()).hasSize(3);
    String voice = project().firstTrack(TrackKind.VOICE).orElseThrow().id();
    Span stretch = Span.ofLength(first.startFrame() + RATE, 2L * RATE);
    robot.interact(() -> window.session().select(new Selection.OfSpan(voice, stretch)));
    press(KeyCode.I);
    assertThat(speechOfFirst()).hasSize(1);
  }

  @Test
  void passagesGoOutAndComeInAsWebVtt() throws IOException {
    untilOpen();
    Clip first = takes().getFirst();
    List<Span> was = speechOfFirst();
    Path file = folder.resolve("first.vtt");
    robot.interact(
        () -> {
          String voice = project().firstTrack(TrackKind.VOICE).orElseThrow().id();
          window.session().select(new Selection.OfClip(voice, first.id()));
          window.run("speech.write");
        });
    type("file-path", file.toString());
    untilQuiet();
    assertThat(Files.readString(file)).startsWith("WEBVTT");
    Files.writeString(file, "WEBVTT\n\n00:01.000 --> 00:02.500\nhello\n");
    robot.interact(() -> window.run("speech.read"));
    type("file-path", file.toString());
    untilQuiet();
    assertThat(speechOfFirst()).containsExactly(new Span(RATE, RATE * 5L / 2));
    robot.interact(window::undo);
    assertThat(speechOfFirst()).isEqualTo(was);
    Files.writeString(file, "no cues here");
    robot.interact(() -> window.run("speech.read"));
    type("file-path", file.toString());
    assertThat(status()).contains("no WebVTT");
    robot.interact(() -> window.run("speech.again"));
    untilQuiet();
    assertThat(speechOfFirst()).isEqualTo(was);
  }

  @Test
  void aDragLeavesTheDraftAndAnEditDropsIt() {
    untilOpen();
    withoutHushes();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    HushDraft draft = window.session().draft().orElseThrow();
    assertThat(draft.count(HushDraft.Change.NEW)).isEqualTo(4);
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "h",
                    p -> HushEdits.add(p, music().id(), Hush.over(new Span(0, 2L * RATE), -3))));
    assertThat(window.session().draft()).isEmpty();
    assertThat(hushes()).hasSize(1);
  }

  @Test
  void cameraSoundWithSpeechCountsAsVoiceWhenSaidSo() {
    untilOpen();
    String camera = project().firstTrack(TrackKind.CAMERA).orElseThrow().id();
    int rows = window.hearing().now().orElseThrow().separation().passages().size();
    robot.interact(
        () -> window.session().commit("s", p -> p.withTrack(camera, t -> t.withSpeaks(true))));
    untilQuiet();
    assertThat(status()).contains("No speech was found in first-ferry.mp4");
    assertThat(window.hearing().now().orElseThrow().separation().passages().size())
        .isLessThan(rows);
  }
}

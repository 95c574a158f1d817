package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.edit.ClipRemoval;
import hushrise.core.exchange.Otio;
import hushrise.core.hush.HushDraft;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
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
    robot.interact(() -> window.session().undo());
    assertThat(project()).isEqualTo(bare);
  }

  @Test
  void whatADraftWouldChangeIsInViewThoughOthersComeBeforeIt() {
    untilOpen();
    List<Hush> others = hushes().subList(0, 3);
    robot.interact(
        () ->
            window
                .session()
                .commit("one less", p -> p.withTrack(music().id(), t -> t.withHushes(others))));
    untilQuiet();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    assertThat(window.session().draft().orElseThrow().count(HushDraft.Change.KEPT)).isEqualTo(3);
    Node list = find("draft-lines");
    until(
        "the new one is in view",
        () ->
            list.lookupAll(".draft-change.new").stream()
                .map(n -> n.localToScene(n.getBoundsInLocal()))
                .anyMatch(b -> list.localToScene(list.getBoundsInLocal()).contains(b)));
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

  /** Rules that follow on one another and the taking do not wait for each draft to be made. */
  @Test
  void whatIsTypedIsInTheDraftThatIsTaken() {
    untilOpen();
    withoutHushes();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    ButtonBase take = find("draft-take");
    CheckBox rises = find("draft-rises");
    robot.clickOn((Node) find("draft-fixed")).push(KeyCode.CONTROL, KeyCode.A).write("-8");
    robot.interact(
        () -> {
          take.requestFocus(); // as a press on it does
          rises.fire();
          take.fire();
        });
    until("it is taken", () -> window.session().draft().isEmpty());
    assertThat(hushes()).isNotEmpty().allMatch(h -> h.depthDb() == -8);
    assertThat(music().rule().orElseThrow().rises()).isPresent();
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
    robot.interact(() -> window.run(CommandId.HUSH_FORGET));
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
    robot.interact(() -> window.session().habits().snapsProperty().set(false));
    drag(on("lane-voice", middle, -20), on("lane-voice", middle + 4, -20));
    untilQuiet();
    long by = takes().get(1).startFrame() - second.startFrame();
    assertThat(by).isBetween(3L * RATE, 5L * RATE);
    assertThat(hushes().get(1).startFrame()).isEqualTo(were.get(1).startFrame() + by);
    assertThat(hushes().get(0).passage()).isEqualTo(were.get(0));
    robot.interact(() -> window.session().undo());
    assertThat(project()).isEqualTo(before);
    robot.interact(
        () ->
            window
                .session()
                .commit("d", p -> ClipRemoval.delete(p, Set.of(second.id()), false, true)));
    assertThat(hushes()).hasSize(3);
    robot.interact(() -> window.session().undo());
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
    robot.interact(() -> window.session().undo());
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
    chosen.next(file);
    robot.interact(
        () -> {
          String voice = project().firstTrack(TrackKind.VOICE).orElseThrow().id();
          window.session().select(new Selection.OfClip(voice, first.id()));
          window.run(CommandId.SPEECH_WRITE);
        });
    untilQuiet();
    assertThat(Files.readString(file)).startsWith("WEBVTT");
    Files.writeString(file, "WEBVTT\n\n00:01.000 --> 00:02.500\nhello\n");
    chosen.next(file);
    robot.interact(() -> window.run(CommandId.SPEECH_READ));
    untilQuiet();
    assertThat(speechOfFirst()).containsExactly(new Span(RATE, RATE * 5L / 2));
    robot.interact(() -> window.session().undo());
    assertThat(speechOfFirst()).isEqualTo(was);
    Files.writeString(file, "no cues here");
    chosen.next(file);
    robot.interact(() -> window.run(CommandId.SPEECH_READ));
    assertThat(status()).contains("no WebVTT");
    Files.writeString(file, "WEBVTT\n\nNOTE nobody speaks\n");
    chosen.next(file);
    robot.interact(() -> window.run(CommandId.SPEECH_READ));
    assertThat(status()).contains("no captions with times");
    assertThat(speechOfFirst()).isEqualTo(was);
    String tune = music().clips().getFirst().id();
    robot.interact(() -> window.session().select(new Selection.OfClip(music().id(), tune)));
    robot.interact(() -> window.run(CommandId.SPEECH_WRITE));
    assertThat(status()).startsWith("No passages are marked in");
    robot.interact(
        () ->
            window
                .session()
                .select(
                    new Selection.OfClip(
                        project().firstTrack(TrackKind.VOICE).orElseThrow().id(), first.id())));
    robot.interact(() -> window.run(CommandId.SPEECH_AGAIN));
    untilQuiet();
    assertThat(speechOfFirst()).isEqualTo(was);
  }

  @Test
  void anEditUnderADraftLetsItBeDraftedAnew() {
    untilOpen();
    withoutHushes();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    HushDraft first = window.session().draft().orElseThrow();
    assertThat(first.count(HushDraft.Change.NEW)).isEqualTo(4);
    String last = takes().getLast().id();
    robot.interact(
        () ->
            window
                .session()
                .commit("away", p -> ClipRemoval.delete(p, Set.of(last), false, false)));
    assertThat(window.session().draft()).isPresent();
    untilQuiet();
    assertThat(window.session().draft().orElseThrow().count(HushDraft.Change.NEW)).isEqualTo(3);
    press(KeyCode.ENTER);
    assertThat(hushes()).hasSize(3);
    assertThat(takes()).hasSize(3);
  }

  @Test
  void whatIsFoundOutMeanwhileLeavesTheDraftAndADragAlone() {
    untilOpen();
    withoutHushes();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    Clip take = takes().getFirst();
    double second = take.startFrame() / (double) RATE;
    robot.interact(() -> window.session().habits().snapsProperty().set(false));
    robot.moveTo(on("lane-voice", second + 2, -20));
    robot.press(MouseButton.PRIMARY);
    robot.moveTo(on("lane-voice", second + 5, -20));
    robot.interact(
        () -> window.session().learn(p -> p.withMarkers(List.of(new Marker("m", "found", 5)))));
    assertThat(window.session().draft()).isPresent();
    assertThat(window.session().isDragging()).isTrue();
    robot.release(MouseButton.PRIMARY);
    untilQuiet();
    assertClose(takes().getFirst().startFrame() / (double) RATE, second + 3, 0.2);
    assertThat(window.session().present().markers()).hasSize(1);
    assertThat(window.session().present().track(music().id()).orElseThrow().hushes()).isEmpty();
    assertThat(window.session().draft()).isPresent();
    press(KeyCode.ESCAPE);
    assertThat(window.session().draft()).isEmpty();
  }

  @Test
  void comparingAndPressingTheRulerWhileADraftIsShownTakesNothing() {
    untilOpen();
    withoutHushes();
    Project bare = window.session().present();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    robot.press(KeyCode.W);
    until("the draft is not shown", () -> hushes().isEmpty());
    robot.clickOn(on("ruler", 40, 0).getX(), robot.point("#ruler").query().getY() + 6);
    robot.release(KeyCode.W);
    until("the draft is shown again", () -> hushes().size() == 4);
    assertThat(window.session().present()).isEqualTo(bare);
    press(KeyCode.ENTER);
    assertThat(window.session().present().track(music().id()).orElseThrow().hushes()).hasSize(4);
  }

  @Test
  void aHushThatOnlyTheDraftHasCannotBeDraggedAndSaysWhy() {
    untilOpen();
    withoutHushes();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    Hush drafted = hushes().getFirst();
    double middle = (drafted.startFrame() + drafted.endFrame()) / 2.0 / RATE;
    drag(on(middle, drafted.depthDb()), on(middle, drafted.depthDb() - 5));
    assertThat(status()).contains("This is a draft");
    assertThat(hushes().getFirst()).isEqualTo(drafted);
    assertThat(window.session().draft()).isPresent();
  }

  @Test
  void onceADraftIsTakenTheDashesOfWhatWasAreGone() {
    untilOpen();
    withoutHushes();
    press(KeyCode.SHIFT, KeyCode.H);
    untilDrafted();
    int[] drafted = pixelsOfMusic();
    press(KeyCode.ENTER);
    untilQuiet();
    int[] taken = pixelsOfMusic();
    robot.interact(() -> window.session().select(new Selection.OfTrack(music().id())));
    robot.interact(() -> window.session().select(Selection.nothing()));
    assertThat(taken).isEqualTo(pixelsOfMusic()).isNotEqualTo(drafted);
    int width = (int) ((Node) find("lane-music")).lookup("Canvas").getBoundsInLocal().getWidth();
    for (int i = 0; i < taken.length; i++) {
      if (taken[i] != drafted[i]) {
        double frame = window.view().axis().frameAt(i % width);
        assertThat(music().hushes())
            .as("dashes lie only where the level ran elsewhere: at %.2f s", frame / RATE)
            .anySatisfy(
                h ->
                    assertThat(frame)
                        .isBetween(
                            h.knots(RATE).start() - 0.3 * RATE, h.knots(RATE).end() + 0.3 * RATE));
      }
    }
  }

  private int[] pixelsOfMusic() {
    return pictureOf(((Node) find("lane-music")).lookup("Canvas"));
  }

  @Test
  void aDraftThatWouldChangeNothingSaysSo() {
    untilOpen();
    robot.clickOn("#hush");
    untilQuiet();
    press(KeyCode.ENTER);
    untilQuiet();
    robot.clickOn("#hush");
    untilQuiet();
    assertThat(window.session().draft()).isEmpty();
    assertThat(status()).contains("Nothing to change");
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

  @Test
  void thatAVoiceIsSilentIsNotSaidAgainAtEachOpening() {
    Path other = folder.resolve("second-ferry.hushrise");
    ProjectFile.save(withSpeakingCamera(), other);
    robot.interact(() -> window.open(other));
    until("it is open", () -> window.session().file().filter(other::equals).isPresent());
    untilQuiet();
    assertThat(status()).endsWith("is open.");
    assertThat(project().firstTrack(TrackKind.CAMERA).orElseThrow().speaks()).isTrue();
  }

  @Test
  void thatAVoiceOfATimelineIsSilentIsSaid() {
    Path timeline = folder.resolve("second-ferry.otio");
    Otio.write(withSpeakingCamera(), timeline);
    robot.interact(() -> window.open(timeline));
    until("it is open", () -> window.session().file().isEmpty());
    untilQuiet();
    assertThat(status()).contains("No speech was found in first-ferry.mp4");
  }

  private Project withSpeakingCamera() {
    untilOpen();
    String camera = project().firstTrack(TrackKind.CAMERA).orElseThrow().id();
    return ProjectFile.load(folder.resolve("first-ferry.hushrise"))
        .withTrack(camera, t -> t.withSpeaks(true));
  }

  @Test
  void enterTakesADraftWhateverIsSelected() {
    untilOpen();
    robot.clickOn(on(70, -40));
    assertThat(window.session().selection().clipIds()).hasSize(1);
    robot.interact(
        () ->
            window
                .session()
                .commit("bare", p -> p.withTrack(music().id(), t -> t.withHushes(List.of()))));
    press(KeyCode.SHIFT, KeyCode.H);
    until("the draft is shown", () -> window.session().draft().isPresent());
    press(KeyCode.ENTER);
    assertThat(window.session().draft()).isEmpty();
    assertThat(window.session().present().track(music().id()).orElseThrow().hushes()).hasSize(4);
  }
}

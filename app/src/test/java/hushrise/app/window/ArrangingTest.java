package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.session.Selection;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Moving, trimming, splitting and fitting clips in the window. */
class ArrangingTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
    until("the song is known", () -> window.session().songs().song(songMedia()).isPresent());
  }

  private hushrise.core.project.media.Media songMedia() {
    return project().media(music().clips().getFirst().mediaId()).orElseThrow();
  }

  private Track voice() {
    return project().firstTrack(TrackKind.VOICE).orElseThrow();
  }

  private Clip take(int number) {
    return voice().clips().get(number - 1);
  }

  private double start(int number) {
    return take(number).startFrame() / (double) RATE;
  }

  /** A place on a clip's body in the narration's lane. */
  private Point2D onVoice(double seconds) {
    return on("lane-voice", seconds, -30);
  }

  @Test
  void narrationIsDraggedWithItsHushAndComesBackWithUndo() {
    double hush = music().hushes().get(1).startFrame() / (double) RATE;
    drag(onVoice(30), onVoice(35).add(0, 4));
    assertClose(start(2), 30.5, 0.3);
    assertClose(music().hushes().get(1).startFrame() / (double) RATE - hush, start(2) - 25.5, 1e-6);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(start(2)).isEqualTo(25.5);
    assertThat(window.session().redoName()).hasValue("move clip");
  }

  @Test
  void aDraggedEdgeSnapsToAMarkerUnlessSnappingIsOff() {
    robot.interact(() -> window.session().seek(20L * RATE));
    press(KeyCode.M);
    press(KeyCode.HOME);
    double pixels = 0.3 * RATE / window.view().axis().framesPerPixel();
    assertThat(pixels).isBetween(1.5, 8.0);
    drag(onVoice(30), onVoice(30 + 20 - 25.5 + 0.3));
    assertThat(start(2)).as("drawn to the marker").isEqualTo(20);
    press(KeyCode.CONTROL, KeyCode.Z);
    press(KeyCode.N);
    drag(onVoice(30), onVoice(30 + 20 - 25.5 + 0.3));
    assertThat(start(2)).isNotEqualTo(20.0);
    assertClose(start(2), 20.3, 0.2);
  }

  @Test
  void edgesTrimAndTheContentStaysWhereItSounds() {
    drag(onVoice(25.6), onVoice(27.5));
    Clip trimmed = take(2);
    assertClose(trimmed.startFrame() / (double) RATE, 27.4, 0.4);
    assertThat(trimmed.mediaStartFrame()).isEqualTo(trimmed.startFrame() - Math.round(25.5 * RATE));
    type("detail-length", "3");
    assertThat(take(2).lengthFrames()).isEqualTo(3L * RATE);
  }

  @Test
  void theKeyboardSplitsNudgesCopiesAndDeletes() {
    robot.clickOn(onVoice(30));
    robot.interact(() -> window.session().seek(30L * RATE));
    press(KeyCode.SLASH);
    assertThat(voice().clips()).hasSize(5);
    assertThat(take(3).startFrame()).isEqualTo(30L * RATE);
    robot.clickOn(onVoice(33));
    press(KeyCode.ALT, KeyCode.RIGHT);
    assertThat(take(3).startFrame()).isEqualTo(30L * RATE + RATE / 25);
    press(KeyCode.ALT, KeyCode.SHIFT, KeyCode.RIGHT);
    assertThat(take(3).startFrame()).isEqualTo(30L * RATE + 11 * RATE / 25);
    press(KeyCode.CONTROL, KeyCode.C);
    robot.interact(() -> window.session().seek(80L * RATE));
    press(KeyCode.CONTROL, KeyCode.V);
    assertThat(voice().clips().getLast().startFrame()).isEqualTo(80L * RATE);
    press(KeyCode.DELETE);
    assertThat(voice().clips()).hasSize(5);
    robot.clickOn(onVoice(10));
    double later = start(2);
    double length = take(1).lengthFrames() / (double) RATE;
    press(KeyCode.SHIFT, KeyCode.DELETE);
    assertClose(start(1), later - length, 1e-6);
  }

  @Test
  void aBoxSelectsClipsThatThenMoveTogether() {
    drag(onVoice(18), onVoice(50).add(0, 10));
    assertThat(window.session().selection().clipIds()).hasSize(2);
    drag(onVoice(49), onVoice(51));
    assertClose(start(3), 49, 0.4);
    assertClose(start(3) - start(2), 47 - 25.5, 1e-6);
    assertThat(start(1)).isEqualTo(6);
    press(KeyCode.CONTROL, KeyCode.A);
    assertThat(window.session().selection().clipIds()).hasSize(8);
  }

  @Test
  void theFitFollowsThePictureWhenItIsTrimmed() {
    drag(on("lane-picture", 95.9, 0), on("lane-picture", 80, 0));
    double end = project().lengthFrames() / (double) RATE;
    assertClose(end, 80, 1);
    assertThat(music().endFrame()).isEqualTo(project().lengthFrames());
    robot.clickOn(on(20, -30));
    press(KeyCode.DIGIT3);
    until(
        "it is tailored",
        () -> music().clips().getFirst().fit().orElseThrow().mode() == FitMode.TAILOR);
    assertThat(music().endFrame()).isEqualTo(project().lengthFrames());
    robot.clickOn("#undo").clickOn("#undo");
    assertThat(project().lengthFrames()).isEqualTo(96L * RATE);
    assertThat(music().endFrame()).isEqualTo(96L * RATE);
    assertThat(music().clips().getFirst().fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
  }

  @Test
  void theMusicStartsWithASectionAndItsBuildLandsOnThePlayhead() {
    robot.clickOn(on(20, -30));
    press(KeyCode.SHIFT, KeyCode.S);
    until("it starts later", () -> music().clips().getFirst().mediaStartFrame() > 2 * RATE);
    assertThat(music().endFrame()).isEqualTo(96L * RATE);
    long second = music().clips().getFirst().mediaStartFrame();
    press(KeyCode.SHIFT, KeyCode.S);
    until("it goes on", () -> music().clips().getFirst().mediaStartFrame() != second);
    Button first = (Button) (Node) find("detail-section-0");
    robot.interact(first::fire);
    until("it starts at first", () -> music().clips().getFirst().mediaStartFrame() < RATE);
    robot.interact(() -> window.session().seek(50L * RATE));
    Clip before = music().clips().getFirst();
    press(KeyCode.SHIFT, KeyCode.P);
    until("it slid", () -> !music().clips().getFirst().equals(before));
    assertThat(music().endFrame()).isEqualTo(96L * RATE);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(music().clips().getFirst()).isEqualTo(before);
  }

  @Test
  void aSeamIsTriedOutMovedAndRejected() {
    Clip clip = music().clips().getFirst();
    Seam seam = clip.seams().getFirst();
    Node lane = find("lane-music");
    double y = lane.localToScreen(lane.getBoundsInLocal()).getMaxY() - 4;
    robot.clickOn(new Point2D(on(seam.atFrame() / (double) RATE, 0).getX(), y));
    assertThat(window.session().selection()).isInstanceOf(Selection.OfSeam.class);
    assertThat(status()).contains("A seam");
    long playhead = window.session().playhead();
    press(KeyCode.A);
    until("it sounds", () -> window.transport().auditioningProperty().get());
    until("it is over", () -> !window.transport().auditioningProperty().get());
    assertThat(window.session().playhead()).isEqualTo(playhead);
    press(KeyCode.ALT, KeyCode.RIGHT);
    until("it is moved", () -> !music().clips().getFirst().seams().getFirst().equals(seam));
    Seam moved = music().clips().getFirst().seams().getFirst();
    assertClose((moved.fromFrame() - seam.fromFrame()) / (double) RATE, 60 / 101.0, 0.05);
    assertThat(music().endFrame()).isEqualTo(96L * RATE);
    press(KeyCode.R);
    until("another one is there", () -> !music().clips().getFirst().seams().contains(moved));
    assertThat(music().endFrame()).isEqualTo(96L * RATE);
  }

  @Test
  void fadeWithThePictureMatchesItsFadeToBlack() {
    until("the picture is looked through", () -> window.view().cuts().fadeToBlack().isPresent());
    assertThat(window.view().cuts().frames()).hasSize(4);
    long start = window.view().cuts().fadeToBlack().orElseThrow().startFrame();
    press(KeyCode.SHIFT, KeyCode.F);
    assertThat(music().clips().getFirst().fadeOut().lengthFrames()).isEqualTo(96L * RATE - start);
    press(KeyCode.HOME);
    press(KeyCode.PERIOD);
    assertThat(window.session().playhead()).isEqualTo(6L * RATE);
  }

  @Test
  void markersAreNamedAndFound() {
    for (int second : new int[] {40, 12}) {
      robot.interact(() -> window.session().seek((long) second * RATE));
      press(KeyCode.M);
    }
    type("detail-name", "the bell");
    assertThat(project().markers().getLast().name()).isEqualTo("the bell");
    press(KeyCode.HOME);
    press(KeyCode.SHIFT, KeyCode.PERIOD);
    press(KeyCode.SHIFT, KeyCode.PERIOD);
    assertThat(window.session().playhead()).isEqualTo(40L * RATE);
    press(KeyCode.SHIFT, KeyCode.COMMA);
    assertThat(window.session().playhead()).isEqualTo(12L * RATE);
  }

  @Test
  void tracksAreAddedNamedPannedAndRemovedFromTheirHeads() {
    Node head = robot.lookup(".track-head.kind-music").query();
    robot.clickOn(head, MouseButton.SECONDARY);
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "add",
                    p -> hushrise.core.edit.TrackEdits.add(p, TrackKind.MUSIC, "Second bed")));
    press(KeyCode.ESCAPE);
    assertThat(project().tracks()).hasSize(6);
    robot.clickOn(robot.lookup(".track-head.kind-music").query().lookup(".track-name"));
    type("detail-pan", "L 40");
    assertThat(music().pan()).isEqualTo(-0.4);
    int clips = music().clips().size();
    press(KeyCode.DELETE);
    assertThat(status()).contains(clips == 1 ? "with its clip" : "with " + clips + " clips");
    assertThat(project().tracksOf(TrackKind.MUSIC)).hasSize(1);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().tracksOf(TrackKind.MUSIC)).hasSize(2);
    press(KeyCode.Q);
    assertThat(project().firstTrack(TrackKind.CAMERA).orElseThrow().muted()).isTrue();
    press(KeyCode.Q);
    assertThat(project().firstTrack(TrackKind.CAMERA).orElseThrow().muted()).isFalse();
  }

  @Test
  void theShelfTriesOutMarksPlacesAndRemoves() {
    press(KeyCode.L);
    ListView<hushrise.core.project.media.Media> list = find("shelf-list");
    until("the list has the keys", list::isFocused);
    assertThat(list.getItems()).hasSize(7);
    type("shelf-search", "narration-3");
    assertThat(list.getItems()).hasSize(1);
    until("the list has the keys again", list::isFocused);
    until("the item is shown", () -> robot.lookup("#item-credit").tryQuery().isPresent());
    long playhead = window.session().playhead();
    press(KeyCode.SPACE);
    until("it sounds", () -> window.transport().auditioningProperty().get());
    assertThat(window.transport().playingProperty().get()).isFalse();
    press(KeyCode.SPACE);
    press(KeyCode.RIGHT);
    press(KeyCode.RIGHT);
    press(KeyCode.I);
    press(KeyCode.RIGHT);
    press(KeyCode.RIGHT);
    press(KeyCode.O);
    assertThat(window.session().playhead()).isEqualTo(playhead);
    hushrise.core.project.media.Media item = list.getItems().getFirst();
    assertThat(item.useful()).isPresent();
    assertClose(item.usefulPart().lengthFrames() / (double) RATE, 2, 0.2);
    robot.interact(() -> window.session().seek(88L * RATE));
    press(KeyCode.ENTER);
    Clip placed = voice().clips().getLast();
    assertThat(placed.startFrame()).isEqualTo(88L * RATE);
    assertThat(placed.lengthFrames()).isEqualTo(item.usefulPart().lengthFrames());
    press(KeyCode.DELETE);
    assertThat(voice().clips()).hasSize(3);
    assertThat(folder.resolve("narration-3.flac")).exists();
    assertThat(status()).contains("file is untouched");
    List<String> before = project().shelf().stream().map(m -> m.title()).toList();
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().shelf()).hasSize(before.size() + 1);
  }
}

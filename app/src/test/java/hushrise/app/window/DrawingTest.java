package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.look.Pixels;
import hushrise.app.look.Theme;
import hushrise.app.timeline.TimeAxis;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is drawn only where something changed looks as if all of it had been drawn. */
@Tag(WindowTestCase.ANY_PLATFORM)
class DrawingTest extends WindowTestCase {

  /** Shows another stretch of time and comes back, so that everything is drawn from nothing. */
  private void drawAllAnew() {
    robot.interact(
        () -> {
          TimeAxis axis = window.view().axis();
          window.view().zoom(0.7, 100);
          window.view().axisProperty().set(axis);
        });
    untilQuiet();
  }

  private void assertDrawnAsAnew(String lane, String what) {
    int[] inPart = pictureOf(find(lane));
    drawAllAnew();
    assertThat(pictureOf(find(lane))).as(what).isEqualTo(inPart);
  }

  /** Shows the window as on a screen with so many pixels to one of its units. */
  private void setDensity(double density) {
    robot.interact(
        () -> {
          Stage stage = (Stage) window.root().getScene().getWindow();
          stage.setRenderScaleX(density);
          stage.setRenderScaleY(density);
        });
  }

  @AfterEach
  void giveTheDensityBack() {
    setDensity(1);
  }

  /** What lies at the bottom of the music's lane, as it is drawn. */
  private ImageView groundOfMusic() {
    Region lane = find("lane-music");
    return (ImageView) lane.getChildrenUnmodifiable().getFirst();
  }

  private void assertGroundDrawnAsAnew(String what) {
    int[] inPart = Pixels.of(groundOfMusic().getImage());
    robot.interact(
        () -> {
          window.applyTheme(Theme.LANTERN);
          window.applyTheme(Theme.QUAY);
        });
    int[] anew = Pixels.of(groundOfMusic().getImage());
    assertThat(Arrays.mismatch(anew, inPart)).as(what).isEqualTo(-1);
  }

  /** Edits of the demo that change its music or its narration, each where it can be seen. */
  private List<UnaryOperator<Project>> edits() {
    String music = music().id();
    Clip song = music().clips().getFirst();
    Hush hush = music().hushes().get(1);
    Clip take = project().firstTrack(TrackKind.VOICE).orElseThrow().clips().get(1);
    return List.of(
        p -> LevelEdits.setHushDepth(p, hush.id(), -3),
        p -> HushEdits.setPassage(p, hush.id(), new Span(24L * RATE, 30L * RATE)),
        p -> LevelEdits.addKeyframe(p, music, 36L * RATE),
        p -> LevelEdits.addKeyframe(p, music, 37L * RATE),
        p -> LevelEdits.addKeyframe(p, music, 37L * RATE + RATE / 3),
        p -> LevelEdits.moveKeyframe(p, music, 1, 36L * RATE + RATE / 4, -8),
        p -> LevelEdits.moveKeyframe(p, music, 2, 39L * RATE, 2),
        p -> LevelEdits.removeHush(p, hush.id()),
        p -> FadeEdits.setIn(p, song.id(), 20L * RATE),
        p -> ClipEdits.move(p, Set.of(take.id()), 3L * RATE, true),
        p -> ClipEdits.split(p, Set.of(song.id()), 33L * RATE),
        p -> LevelEdits.setTrackLevel(p, music, -2));
  }

  @Test
  void anEditDrawsWhatItChangedAndNothingIsLeftBehind() {
    untilOpen();
    robot.interact(() -> window.view().show(new Span(10L * RATE, 50L * RATE)));
    List<UnaryOperator<Project>> edits = edits();
    for (int i = 0; i < edits.size(); i++) {
      UnaryOperator<Project> edit = edits.get(i);
      Project before = project();
      robot.interact(() -> window.session().commit("edit", edit));
      assertThat(project()).as("after edit %d", i).isNotEqualTo(before);
      assertDrawnAsAnew("lane-music", "music after edit " + i);
      assertDrawnAsAnew("lane-voice", "voice after edit " + i);
    }
  }

  @ParameterizedTest
  @ValueSource(doubles = {1, 1.25, 2})
  void onAFineScreenWhatIsDrawnHasItsPixelsAndIsDrawnInPartToo(double density) {
    untilOpen();
    int[] coarse = Pixels.of(groundOfMusic().getImage());
    setDensity(density);
    robot.interact(() -> window.view().show(new Span(10L * RATE, 50L * RATE)));
    untilQuiet();
    Region lane = find("lane-music");
    Image ground = groundOfMusic().getImage();
    assertThat(ground.getWidth()).isEqualTo(Math.floor(Math.floor(lane.getWidth()) * density));
    assertThat(ground.getHeight()).isEqualTo(Math.floor(Math.floor(lane.getHeight()) * density));
    assertThat(groundOfMusic().getFitWidth()).isEqualTo(ground.getWidth() / density);
    List<UnaryOperator<Project>> edits = edits();
    for (int i = 0; i < edits.size(); i++) {
      UnaryOperator<Project> edit = edits.get(i);
      robot.interact(() -> window.session().commit("edit", edit));
      assertGroundDrawnAsAnew("after edit " + i);
    }
    for (double by : new double[] {37, -90, 400, 3, -4}) {
      robot.interact(() -> window.view().scroll(by));
      assertGroundDrawnAsAnew("scrolled by " + by);
    }
    ScrollPane rows = robot.lookup(".rows").queryAs(ScrollPane.class);
    assertThat(rows.getViewportBounds().getWidth()).as("no scroll bar").isEqualTo(rows.getWidth());
    setDensity(1);
    untilQuiet();
    assertThat(Pixels.of(groundOfMusic().getImage())).hasSameSizeAs(coarse);
  }

  @Test
  void scrollingMovesWhatIsThereAndDrawsTheRest() {
    untilOpen();
    robot.interact(() -> window.view().show(new Span(20L * RATE, 40L * RATE)));
    String music = music().id();
    for (long at = 15L * RATE; at < 50L * RATE; at += RATE / 3) {
      long frame = at;
      robot.interact(
          () -> window.session().commit("add", p -> LevelEdits.addKeyframe(p, music, frame)));
    }
    for (int by : new int[] {37, 220, -90, -1, 400}) {
      robot.interact(() -> window.view().scroll(by));
      assertDrawnAsAnew("lane-music", "music scrolled by " + by);
      assertDrawnAsAnew("lane-camera", "camera sound scrolled by " + by);
    }
  }

  @Test
  void aLaneOutOfSightIsDrawnWhenItComesIntoView() {
    untilOpen();
    robot.interact(
        () -> {
          Project more = project();
          for (int i = 0; i < 8; i++) {
            more = TrackEdits.add(more, TrackKind.EFFECTS, "More " + i);
          }
          Project all = more;
          window.session().commit("tracks", p -> all);
        });
    ScrollPane rows = robot.lookup(".rows").queryAs(ScrollPane.class);
    robot.interact(() -> rows.setVvalue(1));
    String music = music().id();
    robot.interact(() -> window.session().commit("lower", p -> lowered(p, music)));
    robot.interact(() -> window.view().zoom(0.9, 300));
    robot.interact(() -> rows.setVvalue(0));
    untilQuiet();
    assertThat(isSeen(find("lane-picture"), rows)).isTrue();
    assertSeenLanesDrawnAsAnew(rows);
  }

  @Test
  void ofVeryManyLanesOnlyThoseThatCanBeSeenKeepTheirPictures() {
    untilOpen();
    Track song = music();
    robot.interact(
        () -> {
          List<Track> all = new ArrayList<>(project().tracks());
          for (int i = 0; i < 60; i++) {
            int number = i;
            List<Clip> clips =
                song.clips().stream().map(c -> c.withId(c.id() + "-" + number)).toList();
            all.add(song.withId("more-" + i).withName("More " + i).withClips(clips));
          }
          window.session().commit("tracks", p -> p.withTracks(all));
        });
    ScrollPane rows = robot.lookup(".rows").queryAs(ScrollPane.class);
    for (int step = 1; step <= 20; step++) {
      double place = step / 20.0;
      robot.interact(() -> rows.setVvalue(place));
    }
    untilQuiet();
    Set<Region> lanes = robot.lookup(".lane").queryAllAs(Region.class);
    assertThat(lanes.stream().filter(DrawingTest::isDrawn))
        .containsExactlyInAnyOrderElementsOf(lanes.stream().filter(l -> isSeen(l, rows)).toList());
    for (double place : new double[] {0, 1, 0}) {
      robot.interact(() -> rows.setVvalue(place));
    }
    assertThat(isSeen(find("lane-picture"), rows)).isTrue();
    assertSeenLanesDrawnAsAnew(rows);
  }

  private static boolean isDrawn(Region lane) {
    return lane.getChildrenUnmodifiable().stream()
        .anyMatch(n -> n instanceof Canvas c && c.getWidth() > 0);
  }

  @Test
  void aLaneOutOfSightIsDrawnWhenTheRowAboveMakesRoomForIt() {
    untilOpen();
    String music = music().id();
    String camera = project().firstTrack(TrackKind.CAMERA).orElseThrow().id();
    rowHeight(music, 400);
    ScrollPane rows = robot.lookup(".rows").queryAs(ScrollPane.class);
    assertThat(isSeen(find("lane-camera"), rows)).isFalse();
    robot.interact(() -> window.session().commit("lower", p -> lowered(p, camera)));
    Node lane = find("lane-camera");
    double height = lane.getBoundsInLocal().getHeight();
    double below =
        lane.localToScene(lane.getBoundsInLocal()).getMinY()
            - rows.localToScene(rows.getBoundsInLocal()).getMaxY();
    rowHeight(music, (int) (400 - below - height / 2));
    assertThat(isSeen(lane, rows)).isTrue();
    assertThat(lane.getBoundsInLocal().getHeight()).as("as low as can be").isEqualTo(height);
    assertSeenLanesDrawnAsAnew(rows);
  }

  @Test
  void whatLiesUnderTheStillPointerIsLitAnewWhenTheLineChanges() {
    untilOpen();
    ctrlClick(18, 0);
    ctrlClick(19, 0);
    Region lane = find("lane-music");
    robot.moveTo(on(20, 0));
    int[] behindTheSecond = pictureOf(lane);
    press(KeyCode.CONTROL, KeyCode.Z);
    untilQuiet();
    int[] behindTheFirst = pictureOf(lane);
    assertThat(behindTheFirst).isNotEqualTo(behindTheSecond);
    robot.moveTo(on("lane-voice", 20, 0)).moveTo(on(20, 0));
    assertThat(pictureOf(lane)).as("as it is when one points there").isEqualTo(behindTheFirst);
    robot.press(KeyCode.E);
    untilQuiet();
    assertThat(window.session().isComparing()).isTrue();
    int[] withoutLines = pictureOf(lane);
    robot.moveTo(on("lane-voice", 20, 0)).moveTo(on(20, 0));
    assertThat(pictureOf(lane)).as("without level lines too").isEqualTo(withoutLines);
    robot.release(KeyCode.E);
  }

  private void rowHeight(String trackId, int pixels) {
    robot.interact(
        () -> window.session().commit("height", p -> TrackEdits.resize(p, trackId, pixels)));
    untilQuiet();
  }

  private void assertSeenLanesDrawnAsAnew(ScrollPane rows) {
    List<Node> seen =
        robot.lookup(".lane").queryAll().stream().filter(n -> isSeen(n, rows)).toList();
    assertThat(seen).extracting(Node::getId).contains("lane-music");
    List<int[]> before = seen.stream().map(this::pictureOf).toList();
    drawAllAnew();
    for (int i = 0; i < seen.size(); i++) {
      assertThat(pictureOf(seen.get(i))).as(seen.get(i).getId()).isEqualTo(before.get(i));
    }
  }

  private static Project lowered(Project project, String trackId) {
    return LevelEdits.setTrackLevel(project, trackId, -9);
  }

  private static boolean isSeen(Node lane, ScrollPane rows) {
    return lane.localToScene(lane.getBoundsInLocal())
        .intersects(rows.localToScene(rows.getBoundsInLocal()));
  }
}

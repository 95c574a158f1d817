package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Text;
import org.junit.jupiter.api.Test;

/** An empty window, and the first files. */
class StartTest extends WindowTestCase {

  @Override
  boolean opensDemo() {
    return false;
  }

  private boolean isStarting() {
    return ((Node) find("start")).isVisible();
  }

  @Test
  void threePlacesTakeWhatAFilmIsMadeOf() {
    chosen.next(folder.resolve("first-ferry.mp4"));
    robot.clickOn("#start-picture");
    until("the film is placed", () -> project().pictureClip().isPresent());
    untilQuiet();
    assertThat(isStarting()).isFalse();
    chosen.next(folder.resolve("narration-1.flac"));
    press(KeyCode.CONTROL, KeyCode.I);
    until(
        "the narration is placed",
        () -> project().firstTrack(TrackKind.VOICE).filter(t -> !t.clips().isEmpty()).isPresent());
    untilQuiet();
    assertThat(window.session().undoName()).isPresent();
  }

  @Test
  void aFileGivenAsNarrationIsNarrationWhateverItSoundsLike() {
    chosen.next(folder.resolve("ferry-horn.flac"));
    robot.clickOn("#start-voice");
    until("it is taken", () -> project().shelf().size() == 1);
    assertThat(project().shelf().getFirst().kind()).isEqualTo(MediaKind.VOICE);
    untilQuiet();
  }

  @Test
  void aProjectThatIsGivenAsTheFilmIsOpened() {
    chosen.next(folder.resolve("first-ferry.hushrise"));
    robot.clickOn("#start-picture");
    until("it is open", () -> window.session().file().isPresent());
    untilQuiet();
    assertThat(project().name()).isEqualTo("First Ferry");
    assertThat(isStarting()).isFalse();
  }

  private void assertOffers(boolean offers, String title) {
    assertThat(robot.lookup("#start-title").queryLabeled().getText()).isEqualTo(title);
    assertThat(((Node) find("start-picture")).getParent().isVisible()).isEqualTo(offers);
  }

  @Test
  void nothingIsOfferedWhileAProjectIsRead() {
    for (String name : List.of("last-ferry", "first-ferry")) {
      robot.interact(
          () -> {
            window.open(folder.resolve(name + ".hushrise"));
            assertOffers(false, name + " is being read \u2026");
          });
      untilQuiet();
      assertOffers(true, "What is the film made of?");
    }
    assertThat(isStarting()).isFalse();
  }

  @Test
  void severalFilesAreOneStepAndTheyCanBeGivenBack() {
    chosen.next(folder.resolve("narration-1.flac"), folder.resolve("narration-2.flac"));
    robot.clickOn("#start-voice");
    until("both are taken", () -> project().shelf().size() == 2);
    untilQuiet();
    assertThat(project().firstTrack(TrackKind.VOICE).orElseThrow().clips()).hasSize(2);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().shelf()).isEmpty();
    assertThat(isStarting()).isTrue();
  }

  @Test
  void whoChoosesNothingChangesNothing() {
    robot.clickOn("#start-music");
    untilQuiet();
    assertThat(project().shelf()).isEmpty();
    assertThat(isStarting()).isTrue();
    assertThat(window.session().undoName()).isEmpty();
  }

  @Test
  void nothingIsSaidOfWhatIsNotThere() {
    assertThat(((Labeled) find("saved-state")).getText()).isEmpty();
    assertThat(status()).doesNotContainIgnoringCase("listening");
    assertThat(
            robot
                .lookup(
                    (Node n) ->
                        n instanceof Labeled l
                            && l.getText() != null
                            && l.getText().startsWith("Listening"))
                .queryAll())
        .isEmpty();
  }

  @Test
  void aProjectThatWasOpenedIsOfferedTheNextTimeAndOpens() {
    Path project = folder.resolve("first-ferry.hushrise");
    robot.interact(() -> window.open(project));
    untilOpen();
    robot.interact(() -> window.run(CommandId.NEW));
    untilQuiet();
    assertThat(isStarting()).isTrue();
    robot.clickOn("#start-recent");
    untilOpen();
    assertThat(window.session().file()).hasValue(project);
    assertThat(isStarting()).isFalse();
  }

  @Test
  void aWrongFileIsNamedAndTheWindowStaysEmpty() throws java.io.IOException {
    Path words = Files.writeString(folder.resolve("notes.txt"), "no film");
    chosen.next(words);
    robot.clickOn("#start-picture");
    until("it is said", () -> status().contains("notes.txt"));
    assertThat(project().shelf()).isEmpty();
    assertThat(isStarting()).isTrue();
  }

  @Test
  void inTheSmallestWindowNothingIsCutOffAndTheRestIsScrolledTo() {
    robot.interact(() -> window.root().getScene().getWindow().setWidth(860));
    robot.interact(() -> window.root().getScene().getWindow().setHeight(560));
    until("the window is small", () -> window.root().getHeight() <= 560);
    ScrollPane start = find("start");
    Bounds seen = start.localToScene(start.getBoundsInLocal());
    Set<Labeled> words = robot.lookup("#start .label").queryAllAs(Labeled.class);
    assertThat(words)
        .hasSizeGreaterThan(7)
        .allSatisfy(
            label -> {
              String shown = ((Text) label.lookup(".text")).getText();
              assertThat(shown.replace("\n", " ")).isEqualTo(label.getText());
              assertThat(label.localToScene(label.getBoundsInLocal()).getMinY())
                  .isGreaterThanOrEqualTo(seen.getMinY());
            });
    robot.interact(() -> start.setVvalue(1));
    QuickRobot.settle();
    assertThat(words)
        .allSatisfy(
            label ->
                assertThat(label.localToScene(label.getBoundsInLocal()).getMaxY())
                    .isLessThanOrEqualTo(seen.getMaxY()));
  }
}

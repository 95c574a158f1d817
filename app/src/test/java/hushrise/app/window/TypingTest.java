package hushrise.app.window;

import static hushrise.app.words.Texts.text;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.report.CreditsSheet;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import javafx.event.EventType;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What is typed counts when its field is left, however it is left, except with Esc. */
class TypingTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
  }

  private Hush hush() {
    return music().hushes().get(1);
  }

  private Point2D onRuler() {
    Node ruler = find("ruler");
    return ruler.localToScreen(200, 18);
  }

  /** Types a fall into the second hush's field, and leaves it at that. */
  private TextField typeFall(String words) {
    robot.interact(() -> window.session().select(new Selection.OfHush(music().id(), hush().id())));
    TextField fall = find("detail-fall");
    robot.clickOn(fall).write(words);
    return fall;
  }

  @Test
  void byAPressElsewhere() {
    typeFall("0.7");
    robot.clickOn(onRuler());
    until("it is taken", () -> hush().turn().fallSeconds() == 0.7);
    assertThat(window.session().playhead()).as("the press was one too").isPositive();
  }

  @Test
  void byAPressOnSomethingElseThatIsSelectedThen() {
    typeFall("0.7");
    Hush other = music().hushes().get(2);
    robot.clickOn(on("lane-voice", 30, -30));
    until("it is taken", () -> hush().turn().fallSeconds() == 0.7);
    assertThat(window.session().selection()).isInstanceOf(Selection.OfClip.class);
    assertThat(music().hushes().get(2)).isEqualTo(other);
  }

  @Test
  void thePressThatGivesANumberTheKeysSelectsItAndADragWhatItGoesOver() {
    TextField fall = typeFall("");
    assertThat(fall.getSelectedText()).isEqualTo("0.35 s");
    press(KeyCode.ESCAPE);
    until("the keys are the timeline's", () -> !fall.isFocused());
    Point2D middle = robot.point(fall).query();
    double edge = fall.getWidth() / 2;
    Point2D end = middle.add(edge - 6, 0);
    dragHolding(Held.NOTHING, "detail-fall", end, end.subtract(20, 0));
    assertThat(fall.getSelectedText()).isNotEmpty().isNotEqualTo("0.35 s");
  }

  @Test
  void withTab() {
    TextField fall = typeFall("0.7");
    press(KeyCode.TAB);
    until("it is taken", () -> hush().turn().fallSeconds() == 0.7);
    assertThat(fall.getText()).isEqualTo("0.70 s");
  }

  @Test
  void butNotWithEscNorWhatIsNoNumber() {
    Hush before = hush();
    TextField fall = typeFall("0.7");
    press(KeyCode.ESCAPE);
    until("the keys are the timeline's", () -> !fall.isFocused());
    assertThat(hush()).isEqualTo(before);
    typeFall("soon");
    press(KeyCode.TAB);
    String shown = "%.2f s".formatted(before.turn().fallSeconds());
    until("the old one is back", () -> fall.getText().equals(shown));
    assertThat(hush()).isEqualTo(before);
  }

  @Test
  void theNameOfATrack() {
    Node head = find(music().id());
    Node name = head.lookup(".track-name");
    doubleClick(head, name.localToScreen(4, 4));
    robot.write("bed");
    robot.clickOn(onRuler());
    until("it is taken", () -> music().name().equals("bed"));
    assertThat(window.session().undoName()).hasValue(text("edit.renameTrack"));
    doubleClick(head, name.localToScreen(4, 4));
    robot.write("other");
    press(KeyCode.ESCAPE);
    robot.clickOn(onRuler());
    assertThat(music().name()).isEqualTo("bed");
  }

  /** The text that is read belongs to the project, and is saved as far as it is typed. */
  @Test
  void theTextToReadWhenItIsSaved() {
    robot.interact(() -> window.run(CommandId.RECORDER));
    TextArea text = find("reading-text");
    robot.clickOn(text).write("the ferry waits");
    press(KeyCode.CONTROL, KeyCode.S);
    Path file = window.session().file().orElseThrow();
    until("it is saved", () -> ProjectFile.load(file).script().isPresent());
    assertThat(ProjectFile.load(file).script()).hasValue("the ferry waits");
    assertThat(text.isFocused()).as("one goes on typing").isTrue();
    press(KeyCode.ENTER);
    press(KeyCode.ENTER);
    robot.write("for nobody");
    robot.clickOn(onRuler());
    until(
        "the rest is taken",
        () -> project().script().orElse("").equals("the ferry waits\n\nfor nobody"));
    undoTo(text, "the ferry waits");
    undoTo(text, "");
  }

  /**
   * What is written is taken every few seconds; on a slow machine that may be between two words.
   */
  private void undoTo(TextArea text, String before) {
    for (int i = 0; i < 9 && !text.getText().equals(before); i++) {
      press(KeyCode.CONTROL, KeyCode.Z);
    }
    assertThat(text.getText()).isEqualTo(before);
  }

  /**
   * Whoever writes on and on, or is called away, loses it neither to a crash nor to a power cut.
   */
  @Test
  void theTextToReadWhileItIsWritten() {
    robot.interact(() -> window.run(CommandId.RECORDER));
    TextArea text = find("reading-text");
    robot.clickOn(text).write("the ferry waits");
    until("what was written is taken", () -> project().script().isPresent());
    until("the rest is too", () -> project().script().get().equals("the ferry waits"));
    assertThat(text.isFocused()).isTrue();
    assertThat(window.session().undoName()).hasValue(text("edit.script"));
    int caret = text.getCaretPosition();
    robot.write(" ");
    assertThat(text.getText()).isEqualTo("the ferry waits ");
    assertThat(text.getCaretPosition()).isEqualTo(caret + 1);
  }

  @Test
  void beforeTheWindowCloses() {
    assertThat(window.session().hasUnsavedChanges()).isFalse();
    typeFall("0.7");
    robot.interact(() -> window.run(CommandId.QUIT));
    until("it asks what becomes of it", () -> find("sheet").isVisible());
    assertThat(hush().turn().fallSeconds()).isEqualTo(0.7);
  }

  @Test
  void beforeAnotherProjectIsOpenedWhichHasNoneOfIt() {
    robot.interact(() -> window.run(CommandId.RECORDER));
    TextArea text = find("reading-text");
    robot.clickOn(text).write("the ferry waits");
    robot.interact(() -> window.run(CommandId.NEW));
    answer(text("unsaved.discard"));
    until("it is a new one", () -> project().tracks().isEmpty());
    assertThat(text.getText()).isEmpty();
    robot.clickOn("#status");
    until("the keys are elsewhere", () -> !text.isFocused());
    assertThat(project().script()).isEmpty();
  }

  @Test
  void noLongerThanAFileMayHold() {
    TextField fall = typeFall("");
    robot.interact(() -> fall.setText("1".repeat(20_000)));
    assertThat(fall.getText()).hasSize(10_000);
  }

  /** Another job may change the shelf at any time, as when speech has been found. */
  @Test
  void aCreditWhileTheShelfChanges() {
    press(KeyCode.L);
    ListView<Media> list = find("shelf-list");
    until("the list has the keys", list::isFocused);
    type("shelf-search", "narration-3");
    until("the item is shown", () -> robot.lookup("#item-credit").tryQuery().isPresent());
    TextField credit = find("item-credit");
    robot.clickOn(credit).push(KeyCode.CONTROL, KeyCode.A).write("read by");
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "part",
                    p -> {
                      Media other = p.shelf().getFirst();
                      return ShelfEdits.setUseful(
                          p, other.id(), new Span(0, other.lengthFrames() / 2));
                    }));
    QuickRobot.settle();
    robot.write(" ada");
    String id = list.getItems().getFirst().id();
    robot.clickOn(onRuler());
    until(
        "it is taken",
        () -> project().media(id).orElseThrow().credit().line("").equals("read by ada"));
  }

  @Test
  void escapeGivesBackWhatWasTypedIntoASheetAndThenClosesIt() {
    Project before = project();
    robot.interact(() -> window.run(CommandId.CREDITS));
    TextField title = find("credit-title");
    String was = title.getText();
    until("it has the keys", title::isFocused);
    robot.push(KeyCode.CONTROL, KeyCode.A).write("another");
    press(KeyCode.ESCAPE);
    assertThat(title.getText()).isEqualTo(was);
    assertThat(find("sheet").isVisible()).isTrue();
    press(KeyCode.ESCAPE);
    assertThat(find("sheet").isVisible()).isFalse();
    assertThat(project()).isSameAs(before);
    assertThat(window.root().getScene().getFocusOwner()).isSameAs(find("timeline"));
  }

  @Test
  void whatIsTypedBeforeASheetHasTheKeysReachesNothingBehindIt() {
    Project before = project();
    robot.interact(
        () -> {
          Node mute = find("mute-music");
          mute.requestFocus();
          window.run(CommandId.CREDITS);
          Node owner = mute.getScene().getFocusOwner();
          owner.fireEvent(space(KeyEvent.KEY_PRESSED));
          owner.fireEvent(space(KeyEvent.KEY_RELEASED));
        });
    until("it has the keys", () -> find("credit-title").isFocused());
    assertThat(project()).isSameAs(before);
  }

  private static KeyEvent space(EventType<KeyEvent> type) {
    return new KeyEvent(type, " ", " ", KeyCode.SPACE, false, false, false, false);
  }

  @Test
  void theCreditsOfManyPiecesAreAllThere() {
    Media tune = project().media(music().clips().getFirst().mediaId()).orElseThrow();
    List<Media> many = IntStream.range(0, 30).mapToObj(i -> tune.withId("tune-" + i)).toList();
    List<Clip> clips =
        IntStream.range(0, 30)
            .mapToObj(i -> Clip.whole(many.get(i), 0).withExtent(4800L * i, 4800, 0, List.of()))
            .toList();
    String effects = project().firstTrack(TrackKind.EFFECTS).orElseThrow().id();
    robot.interact(
        () -> {
          window
              .session()
              .commit(
                  "many",
                  p -> {
                    Project more = p;
                    for (Media one : many) {
                      more = more.withMedia(one);
                    }
                    return more.withTrack(effects, t -> t.withClips(clips));
                  });
          window.run(CommandId.CREDITS);
        });
    until("all are there", () -> robot.lookup("#credit-title").queryAll().size() >= 30);
    assertThat(robot.lookup("#credit-title").queryAll())
        .hasSize(CreditsSheet.of(project()).owed().size());
  }
}

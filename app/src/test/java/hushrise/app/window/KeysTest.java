package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.time.Span;
import java.util.Arrays;
import java.util.List;
import javafx.event.Event;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Mouse and keys mixed: the keys work on the timeline unless somebody has put them elsewhere. */
class KeysTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
  }

  private Node owner() {
    return window.root().getScene().getFocusOwner();
  }

  private void assertTimelineHasKeys() {
    assertThat(owner()).isSameAs(find("timeline"));
  }

  private void withoutHushes() {
    robot.interact(
        () ->
            window
                .session()
                .commit("bare", p -> p.withTrack(music().id(), t -> t.withHushes(List.of()))));
    untilQuiet();
  }

  private void pressRuler(double seconds) {
    robot.clickOn(on("ruler", seconds, 0).getX(), robot.point("#ruler").query().getY());
  }

  @Test
  void afterTheMousePressedHushEnterTakesTheDraft() {
    withoutHushes();
    robot.clickOn("#hush");
    until("the draft is shown", () -> window.session().draft().isPresent());
    untilQuiet();
    press(KeyCode.ENTER);
    assertThat(window.session().draft()).isEmpty();
    assertThat(window.session().present().track(music().id()).orElseThrow().hushes()).hasSize(4);
  }

  @Test
  void afterTakeItSpacePlaysAndNoFieldHasTheKeys() {
    withoutHushes();
    robot.clickOn("#hush");
    until("the draft is shown", () -> window.session().draft().isPresent());
    untilQuiet();
    robot.clickOn("#draft-take");
    untilQuiet();
    assertTimelineHasKeys();
    press(KeyCode.SPACE);
    until("it plays", () -> window.transport().playingProperty().get());
    press(KeyCode.SPACE);
    assertThat(window.transport().playingProperty().get()).isFalse();
  }

  @Test
  void everyPressOutsideAFieldGivesTheKeysBack() {
    for (String button : List.of("#mute-music", "#undo", "#play", "#play", "#mute-music")) {
      robot.clickOn("#level-master");
      assertThat(owner()).isInstanceOf(TextField.class);
      robot.clickOn(button);
      assertTimelineHasKeys();
    }
    robot.clickOn("#level-master");
    pressRuler(30);
    assertTimelineHasKeys();
    assertClose(window.session().playhead() / (double) RATE, 30, 0.1);
    press(KeyCode.K);
    assertThat(keyframes()).hasSize(1);
    robot.clickOn("#level-master");
    robot.clickOn(on("lane-picture", 10, -10));
    assertTimelineHasKeys();
  }

  @Test
  void enterAndEscapeInAFieldGiveTheKeysBack() {
    type("level-music", "-5");
    assertThat(music().levelDb()).isEqualTo(-5);
    assertTimelineHasKeys();
    robot.clickOn("#level-music").push(KeyCode.CONTROL, KeyCode.A).write("-9");
    press(KeyCode.ESCAPE);
    assertThat(music().levelDb()).isEqualTo(-5);
    assertTimelineHasKeys();
  }

  @Test
  void keysTypedIntoAFieldAreNoCommands() {
    robot.clickOn("#level-music").push(KeyCode.CONTROL, KeyCode.A).write("khm");
    assertThat(keyframes()).isEmpty();
    assertThat(project().markers()).isEmpty();
    press(KeyCode.ENTER);
    assertThat(music().levelDb()).isZero();
  }

  @Test
  void aCommandWhoseKeyAlsoStandsInAMenuActsOnce() {
    robot.interact(() -> window.session().commit("one", p -> p.withMasterDb(-1)));
    robot.interact(() -> window.session().commit("two", p -> p.withMasterDb(-2)));
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().masterDb()).isEqualTo(-1);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().masterDb()).isZero();
    assertThat(status()).isEqualTo("Undone: " + window.session().redoName().orElseThrow() + ".");
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
    assertThat(project().masterDb()).isEqualTo(-1);
    assertThat(status()).startsWith("Done again: ");
  }

  @Test
  void theFinderFindsACommandByAPartOfItsWordsShowsItsKeyAndDoesIt() {
    pressRuler(20);
    press(KeyCode.CONTROL, KeyCode.F);
    robot.write("marker add");
    assertThat(foundCommands()).contains(CommandId.MARKER_ADD);
    while (found().getSelectionModel().getSelectedItem() != CommandId.MARKER_ADD) {
      press(KeyCode.DOWN);
    }
    press(KeyCode.ENTER);
    assertThat(project().markers()).hasSize(1);
    assertTimelineHasKeys();
    assertThat(((TextField) find("finder")).getText()).isEmpty();
  }

  @Test
  void whatIsFoundFirstIsDoneByEnter() {
    robot.interact(() -> window.session().commit("one", p -> p.withMasterDb(-1)));
    robot.clickOn("#finder").write("undo");
    assertThat(foundCommands().getFirst()).isEqualTo(CommandId.UNDO);
    assertThat(found().getSelectionModel().getSelectedItem()).isEqualTo(CommandId.UNDO);
    press(KeyCode.ENTER);
    assertThat(window.session().undoName()).isEmpty();
    assertTimelineHasKeys();
  }

  @Test
  void theFinderIsLeftByEscape() {
    press(KeyCode.CONTROL, KeyCode.F);
    robot.write("loop");
    assertThat(foundCommands()).contains(CommandId.FIT_LOOP);
    press(KeyCode.ESCAPE);
    assertTimelineHasKeys();
    assertThat(window.session().undoName()).isEmpty();
  }

  private ListView<CommandId> found() {
    return find("finder-list");
  }

  private List<CommandId> foundCommands() {
    return robot.lookup("#finder-list").tryQuery().isPresent()
        ? List.copyOf(found().getItems())
        : List.of();
  }

  @Test
  void theMenuBarHoldsEveryCommandAndSaysWhichArePossible() {
    MenuBar bar = find("menus");
    List<Object> inMenus =
        bar.getMenus().stream()
            .flatMap(m -> m.getItems().stream())
            .map(MenuItem::getUserData)
            .toList();
    assertThat(inMenus)
        .containsExactlyInAnyOrderElementsOf(
            Arrays.stream(CommandId.values())
                .filter(id -> id.menu() != CommandId.Menu.NONE)
                .map(id -> (Object) id)
                .toList());
    robot.interact(() -> bar.getMenus().get(1).show());
    assertThat(item(bar, CommandId.UNDO).isDisable()).isTrue();
    robot.interact(() -> bar.getMenus().get(1).hide());
    robot.interact(() -> window.session().commit("one", p -> p.withMasterDb(-1)));
    robot.interact(() -> bar.getMenus().get(1).show());
    assertThat(item(bar, CommandId.UNDO).isDisable()).isFalse();
    robot.interact(() -> item(bar, CommandId.UNDO).fire());
    robot.interact(() -> bar.getMenus().get(1).hide());
    assertThat(project().masterDb()).isZero();
  }

  private static MenuItem item(MenuBar bar, CommandId id) {
    return bar.getMenus().stream()
        .flatMap(m -> m.getItems().stream())
        .filter(i -> i.getUserData() == id)
        .findFirst()
        .orElseThrow();
  }

  private void choose(double from, double to) {
    robot.interact(
        () ->
            window
                .session()
                .select(
                    new Selection.OfSpan(
                        music().id(), new Span(Math.round(from * RATE), Math.round(to * RATE)))));
  }

  private double levelAt(double seconds) {
    return music().line().levelDbAt(Math.round(seconds * RATE));
  }

  @Test
  void threeStretchesArePulledToALevelByChoosingTypingAndEnter() {
    double[] from = {16.5, 38, 55};
    for (double start : from) {
      choose(start, start + 3);
      press(KeyCode.MINUS);
      press(KeyCode.DIGIT1);
      press(KeyCode.DIGIT7);
      press(KeyCode.ENTER);
      assertTimelineHasKeys();
    }
    for (double start : from) {
      assertClose(levelAt(start + 1.5), -17, 0.01);
      assertClose(levelAt(start - 1), 0, 0.01);
    }
    assertThat(levelAt(30)).isZero();
  }

  @Test
  void aStretchTakesPercentAndALevelRelativeToWhatItHas() {
    choose(16.5, 20);
    press(KeyCode.DIGIT5);
    robot.write("0%");
    press(KeyCode.ENTER);
    assertClose(levelAt(18), -6.02, 0.01);
    choose(16.5, 20);
    press(KeyCode.B);
    robot.write("y -3");
    press(KeyCode.ENTER);
    assertClose(levelAt(18), -9.02, 0.01);
  }

  @Test
  void fieldsStepWithTheArrowKeys() {
    robot.clickOn("#clock");
    press(KeyCode.UP);
    press(KeyCode.UP);
    press(KeyCode.DOWN);
    assertThat(window.session().playhead()).isEqualTo(RATE / 25);
    robot.clickOn("#level-master");
    press(KeyCode.DOWN);
    press(KeyCode.SHIFT, KeyCode.DOWN);
    assertClose(project().masterDb(), -1.1, 1e-9);
    String hush = music().hushes().getFirst().id();
    robot.interact(() -> window.session().select(new Selection.OfHush(music().id(), hush)));
    double lead = music().hush(hush).orElseThrow().turn().leadSeconds();
    robot.clickOn("#detail-lead");
    press(KeyCode.UP);
    assertThat(music().hush(hush).orElseThrow().turn().leadSeconds()).isGreaterThan(lead);
  }

  @Test
  void everyControlOfTheWindowIsReachedByTab() {
    List<String> wanted =
        List.of("undo", "redo", "play", "clock", "hush", "finder", "shelf-button", "add", "export");
    robot.interact(() -> window.session().commit("one", p -> p.withMasterDb(-1)));
    List<String> reached = new java.util.ArrayList<>();
    for (int i = 0; i < 60 && !reached.containsAll(wanted); i++) {
      press(KeyCode.TAB);
      if (owner() != null && owner().getId() != null) {
        reached.add(owner().getId());
      }
    }
    assertThat(reached).containsAll(wanted.stream().filter(id -> !"redo".equals(id)).toList());
    assertThat(reached).contains("level-music", "mute-music", "level-master");
  }

  @Test
  void aKeyThatIsHeldStepsOnButPlaysOnlyOnce() {
    robot.interact(() -> window.session().seek(0));
    robot.press(KeyCode.RIGHT);
    robot.interact(() -> repeat(KeyCode.RIGHT, 3));
    robot.release(KeyCode.RIGHT);
    until("three steps or more", () -> window.session().playhead() >= frames(3));
    press(KeyCode.HOME);
    robot.press(KeyCode.SPACE);
    until("it plays", () -> window.transport().player().isPlaying());
    robot.interact(() -> repeat(KeyCode.SPACE, 3));
    assertThat(window.transport().player().isPlaying()).isTrue();
    robot.release(KeyCode.SPACE);
    press(KeyCode.SPACE);
    until("it stops", () -> !window.transport().player().isPlaying());
  }

  private long frames(int ofPicture) {
    return project().pictureRate().sampleFrameOf(ofPicture, RATE);
  }

  /** As the system does while a key is held. */
  private void repeat(KeyCode key, int times) {
    for (int i = 0; i < times; i++) {
      Event.fireEvent(
          owner(),
          new KeyEvent(KeyEvent.KEY_PRESSED, "", key.getName(), key, false, false, false, false));
    }
  }
}

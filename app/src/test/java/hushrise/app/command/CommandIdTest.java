package hushrise.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.Test;

/** The one table of commands. */
class CommandIdTest {

  private static Commands commands(Set<CommandId> done, Set<CommandId.Needs> there) {
    return commands(done, there, new ArrayList<>());
  }

  private static Commands commands(
      Set<CommandId> done, Set<CommandId.Needs> there, List<String> said) {
    Commands.Builder builder = new Commands.Builder();
    for (CommandId id : CommandId.values()) {
      builder.set(id, () -> done.add(id));
    }
    return builder.build(there::contains, said::add);
  }

  private static KeyEvent key(KeyCode code) {
    return new KeyEvent(KeyEvent.KEY_PRESSED, "", "", code, false, false, false, false);
  }

  @Test
  void everyCommandHasWordsAndItsOwnName() {
    assertThat(CommandId.values())
        .allSatisfy(id -> assertThat(id.words()).isNotBlank().doesNotStartWith("cmd."));
    assertThat(Arrays.stream(CommandId.values()).map(CommandId::key)).doesNotHaveDuplicates();
    assertThat(Arrays.stream(CommandId.values()).map(CommandId::words)).doesNotHaveDuplicates();
  }

  @Test
  void noKeyHasTwoMeaningsExceptEnterWhoseMeaningADraftDecides() {
    Map<KeyCombination, CommandId> owners = new HashMap<>();
    for (CommandId id : CommandId.values()) {
      for (KeyCombination keys : id.keys()) {
        CommandId other = owners.put(keys, id);
        if (other != null) {
          assertThat(Set.of(id, other))
              .isEqualTo(Set.of(CommandId.TYPE_LEVEL, CommandId.DRAFT_TAKE));
        }
      }
    }
  }

  @Test
  void enterTakesADraftWhereThereIsOneAndElseTypesALevel() {
    Set<CommandId> done = EnumSet.noneOf(CommandId.class);
    assertThat(commands(done, EnumSet.of(CommandId.Needs.DRAFT)).of(key(KeyCode.ENTER)))
        .hasValue(CommandId.DRAFT_TAKE);
    assertThat(commands(done, EnumSet.of(CommandId.Needs.LEVEL)).of(key(KeyCode.ENTER)))
        .hasValue(CommandId.TYPE_LEVEL);
    assertThat(commands(done, Set.of()).of(key(KeyCode.F12))).isEmpty();
  }

  private static KeyEvent writing(String text, KeyCode code, boolean shift, boolean altGr) {
    return new KeyEvent(KeyEvent.KEY_PRESSED, text, text, code, shift, altGr, altGr, false);
  }

  @Test
  void signsAreFoundWhereAKeyboardHasThem() {
    Commands commands =
        commands(EnumSet.noneOf(CommandId.class), EnumSet.allOf(CommandId.Needs.class));
    assertThat(commands.of(writing("+", KeyCode.EQUALS, true, false))).hasValue(CommandId.ZOOM_IN);
    assertThat(commands.of(writing("/", KeyCode.DIGIT7, true, false))).hasValue(CommandId.SPLIT);
    assertThat(commands.of(writing("1", KeyCode.AMPERSAND, true, false)))
        .isEqualTo(commands.of(key(KeyCode.DIGIT1)))
        .isPresent();
    assertThat(commands.of(writing("[", KeyCode.DIGIT8, false, true)))
        .isEqualTo(commands.of(key(KeyCode.OPEN_BRACKET)))
        .isPresent();
  }

  @Test
  void whatAKeyMeansGoesBeforeWhatItWrites() {
    Commands commands =
        commands(EnumSet.noneOf(CommandId.class), EnumSet.allOf(CommandId.Needs.class));
    assertThat(commands.of(writing("?", KeyCode.SLASH, true, false)))
        .hasValue(CommandId.PASSAGE_SPLIT);
    assertThat(commands.of(writing("(", KeyCode.DIGIT9, true, false))).isEmpty();
    assertThat(commands.of(writing("H", KeyCode.H, true, false))).hasValue(CommandId.HUSH_ALL);
  }

  @Test
  void theFinderNamesWhatIsPossibleFirst() {
    Commands commands =
        commands(EnumSet.noneOf(CommandId.class), EnumSet.of(CommandId.Needs.MARKERS));
    List<CommandId> found = commands.found("MARKER");
    assertThat(found).contains(CommandId.MARKER_ADD, CommandId.MARKER_NEXT);
    assertThat(found.getFirst()).isIn(CommandId.MARKER_NEXT, CommandId.MARKER_PREVIOUS);
    assertThat(found).doesNotContain(CommandId.ESCAPE);
    assertThat(commands.found("no such words")).isEmpty();
    assertThat(commands.found("duck")).containsExactly(CommandId.HUSH_HERE, CommandId.HUSH_ALL);
    assertThat(commands.found("loop"))
        .as("by its own words first")
        .startsWith(CommandId.FIT_LOOP)
        .contains(CommandId.PLAY_LOOP);
  }

  @Test
  void aCommandRunsWhatItWasGiven() {
    Set<CommandId> done = EnumSet.noneOf(CommandId.class);
    commands(done, EnumSet.of(CommandId.Needs.NOTHING)).run(CommandId.SAVE);
    assertThat(done).containsExactly(CommandId.SAVE);
  }

  @Test
  void ofACommandThatIsNotPossibleItIsSaidWhatItLacksAndNothingIsDone() {
    for (CommandId id : CommandId.values()) {
      Set<CommandId> done = EnumSet.noneOf(CommandId.class);
      List<String> said = new ArrayList<>();
      commands(done, Set.of(), said).run(id);
      assertThat(done).isEmpty();
      assertThat(said).singleElement().asString().endsWith(".").doesNotStartWith("needs.");
    }
  }

  @Test
  void aTableWithAGapOrTwoMeaningsIsRefused() {
    Commands.Builder builder = new Commands.Builder().set(CommandId.SAVE, () -> {});
    assertThatThrownBy(() -> builder.set(CommandId.SAVE, () -> {}))
        .isInstanceOf(IllegalStateException.class);
    assertThatThrownBy(() -> builder.build(needs -> true, words -> {}))
        .isInstanceOf(IllegalStateException.class)
        .hasMessageContaining("EXPORT");
  }
}

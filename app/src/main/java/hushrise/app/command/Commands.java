package hushrise.app.command;

import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Predicate;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyEvent;

/** What each command does and whether it can do it now: the one table that everything asks. */
public final class Commands {

  private final Map<CommandId, Runnable> actions;
  private final Predicate<CommandId.Needs> possible;
  private final Consumer<String> say;

  private Commands(
      Map<CommandId, Runnable> actions, Predicate<CommandId.Needs> possible, Consumer<String> say) {
    this.actions = actions;
    this.possible = possible;
    this.say = say;
  }

  /** Gives commands what they do, part by part. */
  public static final class Builder {

    private final Map<CommandId, Runnable> actions = new EnumMap<>(CommandId.class);

    /** Sets what a command does. */
    public Builder set(CommandId id, Runnable action) {
      if (actions.put(id, action) != null) {
        throw new IllegalStateException(id + " would do two things");
      }
      return this;
    }

    /**
     * The finished table.
     *
     * @param possible whether what a command needs is there
     * @param say is told what a command lacks
     * @throws IllegalStateException when a command does nothing
     */
    public Commands build(Predicate<CommandId.Needs> possible, Consumer<String> say) {
      List<CommandId> idle =
          Arrays.stream(CommandId.values()).filter(id -> !actions.containsKey(id)).toList();
      if (!idle.isEmpty()) {
        throw new IllegalStateException("Nothing is done by " + idle);
      }
      return new Commands(new EnumMap<>(actions), possible, say);
    }
  }

  /** Does what a command does; of one that is not possible now it is said what it lacks. */
  public void run(CommandId id) {
    if (isPossible(id)) {
      actions.get(id).run();
    } else {
      say.accept(id.needs().words());
    }
  }

  /** Whether a command would do something now. */
  public boolean isPossible(CommandId id) {
    return possible.test(id.needs());
  }

  /**
   * The command of a pressed key: of several the one that is possible now. What a key writes counts
   * where the key itself means nothing.
   */
  public Optional<CommandId> of(KeyEvent e) {
    List<CommandId> byKey = all(id -> id.matches(e));
    List<CommandId> all = byKey.isEmpty() ? all(id -> id.isWrittenBy(e)) : byKey;
    return all.stream().filter(this::isPossible).findFirst().or(() -> all.stream().findFirst());
  }

  private static List<CommandId> all(Predicate<CommandId> wanted) {
    return Arrays.stream(CommandId.values()).filter(wanted).toList();
  }

  /**
   * The commands whose words, or what else they are called, hold all the words of a text; those
   * that are possible first, then those with the words in their own.
   */
  public List<CommandId> found(String typed) {
    List<String> wanted = List.of(typed.strip().toLowerCase(Locale.ROOT).split("\\s+", -1));
    return Arrays.stream(CommandId.values())
        .filter(id -> id.menu() != CommandId.Menu.NONE)
        .filter(id -> hold(wanted, id.words() + ' ' + id.otherNames()))
        .sorted(
            Comparator.comparing((CommandId id) -> !isPossible(id))
                .thenComparing(id -> !hold(wanted, id.words())))
        .toList();
  }

  private static boolean hold(List<String> wanted, String words) {
    String lower = words.toLowerCase(Locale.ROOT);
    return wanted.stream().allMatch(lower::contains);
  }

  /** A menu item for a command, with its key. */
  public MenuItem item(CommandId id) {
    MenuItem item = new MenuItem(id.words());
    item.setMnemonicParsing(false);
    item.setId("menu-" + id.key());
    if (!id.keys().isEmpty()) {
      item.setAccelerator(id.keys().getFirst());
    }
    item.setDisable(!isPossible(id));
    item.setOnAction(e -> run(id));
    return item;
  }
}

package hushrise.app;

import static hushrise.app.look.Texts.text;

import java.util.List;
import java.util.Optional;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;

/**
 * Something that can be done by a key, from a menu or with a button.
 *
 * @param id its name in the texts ({@code cmd.ID})
 * @param keys what to press; empty when it has no key
 * @param action does it
 */
public record Command(String id, Optional<KeyCombination> keys, Runnable action) {

  /** A command with a key, such as {@code "Shortcut+S"} or {@code "SLASH"}: a key code's name. */
  static Command of(String id, String keys, Runnable action) {
    List<String> parts = List.of(keys.split("\\+", -1));
    KeyCombination.Modifier[] modifiers =
        parts.subList(0, parts.size() - 1).stream()
            .map(
                part ->
                    switch (part) {
                      case "Shortcut" -> KeyCombination.SHORTCUT_DOWN;
                      case "Shift" -> KeyCombination.SHIFT_DOWN;
                      case "Alt" -> KeyCombination.ALT_DOWN;
                      default -> throw new IllegalArgumentException(keys);
                    })
            .toArray(KeyCombination.Modifier[]::new);
    KeyCode code = KeyCode.valueOf(parts.getLast());
    return new Command(id, Optional.of(new KeyCodeCombination(code, modifiers)), action);
  }

  /** A command for menus and buttons. */
  static Command withoutKeys(String id, Runnable action) {
    return new Command(id, Optional.empty(), action);
  }

  /** What it does, in words. */
  public String words() {
    return text("cmd." + id);
  }

  /** Its key as a person reads it; empty without one. */
  public String keyWords() {
    return keys.map(KeyCombination::getDisplayText).orElse("");
  }
}

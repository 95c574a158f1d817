package hushrise.app.window;

import hushrise.app.command.CommandId;
import hushrise.app.widget.Focus;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** Commands that last for as long as their key is held; one at a time. */
final class HeldKeys {

  /** What holding a key begins and ends. */
  private record Held(Runnable begin, Runnable end) {}

  private final Map<CommandId, Held> commands = new EnumMap<>(CommandId.class);
  private Optional<KeyCode> key = Optional.empty();
  private Runnable end = () -> {};

  void add(CommandId id, Runnable begin, Runnable ended) {
    commands.put(id, new Held(begin, ended));
  }

  void attach(Scene scene) {
    scene.addEventFilter(
        KeyEvent.KEY_PRESSED,
        e -> {
          boolean typing = scene.getFocusOwner() instanceof TextInputControl;
          Optional<Held> command = of(e);
          if (!typing && command.isPresent()) {
            if (key.isEmpty()) {
              key = Optional.of(e.getCode());
              end = command.get().end();
              command.get().begin().run();
            }
            e.consume();
          }
        });
    scene.addEventFilter(
        KeyEvent.KEY_RELEASED,
        e -> {
          if (key.filter(e.getCode()::equals).isPresent()) {
            let();
            e.consume();
          }
        });
    Focus.whenLost(
        scene,
        () -> {
          if (key.isPresent()) {
            let();
          }
        });
  }

  private void let() {
    key = Optional.empty();
    end.run();
  }

  private Optional<Held> of(KeyEvent e) {
    return commands.entrySet().stream()
        .filter(c -> c.getKey().matches(e))
        .map(Map.Entry::getValue)
        .findFirst();
  }
}

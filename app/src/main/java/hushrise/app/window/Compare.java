package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.edit.HushEdits;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Stage;

/**
 * While W is held the project is heard and seen without hushes and rises, while E is held without
 * level lines. From the menu it stays so until it is chosen again.
 */
final class Compare {

  private final Session session;
  private final Messages messages;
  private Optional<KeyCode> held = Optional.empty();

  Compare(Session session, Messages messages) {
    this.session = session;
    this.messages = messages;
  }

  void attach(Stage stage, Scene scene) {
    scene.addEventFilter(
        KeyEvent.KEY_PRESSED,
        e -> {
          boolean typing = scene.getFocusOwner() instanceof TextInputControl;
          Optional<CommandId> command = commandOf(e);
          if (!typing && command.isPresent()) {
            if (held.isEmpty()) {
              held = Optional.of(e.getCode());
              begin(command.get());
            }
            e.consume();
          }
        });
    scene.addEventFilter(
        KeyEvent.KEY_RELEASED,
        e -> {
          if (held.filter(e.getCode()::equals).isPresent()) {
            held = Optional.empty();
            end();
            e.consume();
          }
        });
    stage
        .focusedProperty()
        .addListener(
            (p, was, now) -> {
              if (!now && held.isPresent()) {
                held = Optional.empty();
                end();
              }
            });
  }

  private static Optional<CommandId> commandOf(KeyEvent e) {
    return CommandId.COMPARE_SHAPES.matches(e)
        ? Optional.of(CommandId.COMPARE_SHAPES)
        : Optional.of(CommandId.COMPARE_LINE).filter(id -> id.matches(e));
  }

  /** Begins to compare, or ends it. */
  void toggle(CommandId id) {
    if (session.isComparing()) {
      end();
    } else {
      begin(id);
    }
  }

  private void begin(CommandId id) {
    boolean shapes = id == CommandId.COMPARE_SHAPES;
    session.compare(shapes ? HushEdits::withoutHushes : HushEdits::withoutLines);
    messages.say(text(shapes ? "compare.hushes" : "compare.line"));
  }

  private void end() {
    session.endComparison();
    messages.say(text("compare.over"));
  }
}

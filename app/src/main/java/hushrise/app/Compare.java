package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.core.edit.HushEdits;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Stage;

/**
 * While W is held the project is heard and seen without hushes and rises, while E is held without
 * level lines.
 */
final class Compare {

  private final Session session;
  private final Window window;
  private Optional<KeyCode> held = Optional.empty();

  Compare(Session session, Window window) {
    this.session = session;
    this.window = window;
  }

  void attach(Stage stage, Scene scene) {
    scene.addEventFilter(
        KeyEvent.KEY_PRESSED,
        e -> {
          boolean typing = scene.getFocusOwner() instanceof TextInputControl;
          boolean plain = !e.isShortcutDown() && !e.isAltDown() && !e.isShiftDown();
          if (!typing && plain && (e.getCode() == KeyCode.W || e.getCode() == KeyCode.E)) {
            hold(e.getCode());
            e.consume();
          }
        });
    scene.addEventFilter(
        KeyEvent.KEY_RELEASED,
        e -> {
          if (held.filter(e.getCode()::equals).isPresent()) {
            release();
            e.consume();
          }
        });
    stage
        .focusedProperty()
        .addListener(
            (p, was, now) -> {
              if (!now) {
                release();
              }
            });
  }

  private void hold(KeyCode key) {
    if (held.isEmpty()) {
      held = Optional.of(key);
      boolean hushes = key == KeyCode.W;
      session.preview(
          hushes
              ? HushEdits.withoutHushes(session.present())
              : HushEdits.withoutLines(session.present()));
      window.say(text(hushes ? "compare.hushes" : "compare.line"));
    }
  }

  private void release() {
    if (held.isPresent()) {
      held = Optional.empty();
      session.dropPreview();
      window.say(text("compare.over"));
    }
  }
}

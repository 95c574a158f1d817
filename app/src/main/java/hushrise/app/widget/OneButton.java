package hushrise.app.widget;

import javafx.event.EventType;
import javafx.scene.Scene;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** Leaves the other buttons without effect while the left one is held, as in a drag. */
public final class OneButton {

  private boolean isHeld;

  private OneButton() {}

  /** Watches the buttons in a scene. */
  public static void of(Scene scene) {
    OneButton one = new OneButton();
    scene.addEventFilter(MouseEvent.ANY, one::look);
    scene.addEventFilter(
        ContextMenuEvent.ANY,
        e -> {
          if (one.isHeld) {
            e.consume();
          }
        });
  }

  private void look(MouseEvent e) {
    EventType<? extends MouseEvent> type = e.getEventType();
    boolean changes = type == MouseEvent.MOUSE_PRESSED || type == MouseEvent.MOUSE_RELEASED;
    if (type == MouseEvent.MOUSE_MOVED) {
      isHeld = false; // it was let go over something else
    } else if (changes && e.getButton() == MouseButton.PRIMARY) {
      isHeld = type == MouseEvent.MOUSE_PRESSED;
    } else if (isHeld && (changes || type == MouseEvent.MOUSE_CLICKED)) {
      e.consume();
    }
  }
}

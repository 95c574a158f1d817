package hushrise.app.window;

import javafx.event.EventType;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** A pointer in nobody's hand: its main button pressed, pulled and let go of. */
public final class Pointer {

  private Pointer() {}

  /** Presses at a place of a node, in the node's own coordinates. */
  public static void press(Node node, double x, double y) {
    fire(node, MouseEvent.MOUSE_PRESSED, x, y);
  }

  /** Pulls to a place, with the button held. */
  public static void pull(Node node, double x, double y) {
    fire(node, MouseEvent.MOUSE_DRAGGED, x, y);
  }

  /** Lets go at a place. */
  public static void letGo(Node node, double x, double y) {
    fire(node, MouseEvent.MOUSE_RELEASED, x, y);
  }

  /**
   * One step of a drag: presses at the first, lets go at the last, and pulls at those between.
   *
   * @param step from 0 to {@code steps - 1}
   * @param x where it is taken and let go of
   * @param toX where it is pulled to at this step
   */
  public static void drag(
      Node node, int step, int steps, double x, double y, double toX, double toY) {
    if (step == 0) {
      press(node, x, y);
    } else if (step == steps - 1) {
      letGo(node, x, y);
    } else {
      pull(node, toX, toY);
    }
  }

  private static void fire(Node node, EventType<MouseEvent> type, double x, double y) {
    Point2D inScene = node.localToScene(x, y);
    node.fireEvent(
        new MouseEvent(
            type,
            inScene.getX(),
            inScene.getY(),
            inScene.getX(),
            inScene.getY(),
            MouseButton.PRIMARY,
            1,
            false,
            false,
            false,
            false,
            type != MouseEvent.MOUSE_RELEASED,
            false,
            false,
            false,
            false,
            false,
            null));
  }
}

package hushrise.bench;

import java.util.List;
import java.util.Random;
import javafx.collections.ObservableList;
import javafx.event.EventType;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.MenuBar;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.stage.PopupWindow;
import javafx.stage.Window;

/**
 * A hand on a pointer that presses, drags, turns the wheel and lets go anywhere in a window. What
 * it pressed gets all until it lets go.
 */
final class Hand {

  /** Most of what can be taken hold of lies here. */
  private static final List<String> PLACES =
      List.of("#timeline", "#timeline", "#timeline", "#timeline", "#bottom", "#hush");

  private final Parent root;
  private final Random random;
  private Node under;
  private boolean holds;
  private Point2D from = Point2D.ZERO;
  private Point2D at = Point2D.ZERO;
  private MouseButton button = MouseButton.PRIMARY;
  private boolean shift;
  private boolean ctrl;
  private boolean alt;
  private int clicks;

  Hand(Parent root, Random random) {
    this.root = root;
    this.random = random;
  }

  boolean isHolding() {
    return holds;
  }

  /** Takes the pointer away from where it rests. */
  void leave() {
    if (under != null) {
      fire(MouseEvent.MOUSE_EXITED);
      under = null;
    }
  }

  /** Goes somewhere and rests, presses, with or without keys, or turns the wheel there. */
  void press() {
    leave();
    from = somewhere();
    at = from;
    Node node = pick(root, from);
    for (Node n = node; n != null; n = n.getParent()) {
      if (n instanceof MenuBar) {
        return;
      }
    }
    shift = random.nextInt(6) == 0;
    ctrl = random.nextInt(6) == 0;
    alt = random.nextInt(10) == 0;
    if (random.nextInt(8) == 0) {
      turnWheel(node);
      return;
    }
    button = random.nextInt(8) == 0 ? MouseButton.SECONDARY : MouseButton.PRIMARY;
    clicks = random.nextInt(6) == 0 ? 2 : 1;
    under = node;
    fire(MouseEvent.MOUSE_MOVED);
    if (random.nextInt(4) > 0) {
      holds = true;
      fire(MouseEvent.MOUSE_PRESSED);
    }
  }

  /** Drags what it holds a little further, mostly along the time. */
  void drag() {
    double x = random.nextGaussian() * 60;
    double y = random.nextGaussian() * (random.nextInt(4) == 0 ? 80 : 12);
    at = at.add(x, y);
    fire(MouseEvent.MOUSE_DRAGGED);
  }

  /** Lets go of what it holds. */
  void letGo() {
    holds = false;
    fire(MouseEvent.MOUSE_RELEASED);
    if (from.distance(at) < 3) {
      fire(MouseEvent.MOUSE_CLICKED);
    }
    if (button == MouseButton.SECONDARY && under.getScene() != null) {
      under.fireEvent(
          new ContextMenuEvent(
              ContextMenuEvent.CONTEXT_MENU_REQUESTED,
              at.getX(),
              at.getY(),
              at.getX(),
              at.getY(),
              false,
              null));
      closePopups();
    }
  }

  /** Closes all lists and menus that stand open. */
  static void closePopups() {
    List.copyOf(Window.getWindows()).stream()
        .filter(PopupWindow.class::isInstance)
        .forEach(Window::hide);
  }

  /** What it does, as far as it is needed to find that again. */
  String words() {
    return "%s at %s from %s on %s".formatted(button, at, from, under);
  }

  private Point2D somewhere() {
    Node place = root.lookup(PLACES.get(random.nextInt(PLACES.size())));
    Bounds in = place.localToScene(place.getBoundsInLocal());
    return new Point2D(
        in.getMinX() + random.nextDouble() * in.getWidth(),
        in.getMinY() + random.nextDouble() * in.getHeight());
  }

  private static Node pick(Node node, Point2D inScene) {
    if (node instanceof Parent parent) {
      ObservableList<Node> children = parent.getChildrenUnmodifiable();
      for (int i = children.size() - 1; i >= 0; i--) {
        Node child = children.get(i);
        if (child.isVisible()
            && !child.isDisabled()
            && !child.isMouseTransparent()
            && child.contains(child.sceneToLocal(inScene))) {
          return pick(child, inScene);
        }
      }
    }
    return node;
  }

  private void turnWheel(Node node) {
    double by = random.nextBoolean() ? 40 : -40;
    node.fireEvent(
        new ScrollEvent(
            ScrollEvent.SCROLL,
            at.getX(),
            at.getY(),
            at.getX(),
            at.getY(),
            shift,
            ctrl,
            alt,
            false,
            false,
            false,
            0,
            by,
            0,
            by,
            ScrollEvent.HorizontalTextScrollUnits.NONE,
            0,
            ScrollEvent.VerticalTextScrollUnits.NONE,
            0,
            0,
            null));
  }

  private void fire(EventType<MouseEvent> type) {
    boolean down = type == MouseEvent.MOUSE_PRESSED || type == MouseEvent.MOUSE_DRAGGED;
    under.fireEvent(
        new MouseEvent(
            type,
            at.getX(),
            at.getY(),
            at.getX(),
            at.getY(),
            button,
            clicks,
            shift,
            ctrl,
            alt,
            false,
            down && button == MouseButton.PRIMARY,
            false,
            down && button == MouseButton.SECONDARY,
            false,
            button == MouseButton.SECONDARY && type == MouseEvent.MOUSE_PRESSED,
            from.distance(at) < 3,
            null));
  }
}

package hushrise.app.widget;

import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.stage.Window;

/** Tells a focus that a person asked for from one that a field took by itself. */
public final class Focus {

  private static final String ASKED = "hushrise.focus-asked";

  private Focus() {}

  /** Gives a node the keys, as a person asked for it. */
  public static void ask(Node node) {
    node.getProperties().put(ASKED, true);
    node.requestFocus();
    node.getProperties().remove(ASKED);
  }

  /** Whether a node is just being given the keys. */
  public static boolean isAsked(Node node) {
    return node.getProperties().containsKey(ASKED);
  }

  /**
   * Does something whenever the keys leave a node for another one, or as it goes; not when the
   * whole window loses them and may come back to what is half typed.
   */
  public static void whenLeft(Node node, Runnable then) {
    node.focusedProperty()
        .addListener(
            (p, was, has) -> {
              Scene scene = node.getScene();
              if (!has && (scene == null || !node.equals(scene.getFocusOwner()))) {
                then.run();
              }
            });
  }

  /** Does something whenever the scene's window loses the keys; the window keeps no hold of it. */
  public static void whenLost(Scene scene, Runnable then) {
    scene
        .windowProperty()
        .flatMap(Window::focusedProperty)
        .orElse(false)
        .subscribe(
            focused -> {
              if (!focused) {
                then.run();
              }
            });
  }
}

package hushrise.app.widget;

import javafx.scene.Node;

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
}

package hushrise.app.window;

import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;

/**
 * What stands at the right of the timeline: nothing, or one pane at a time. In a low window it
 * scrolls.
 */
final class SidePanes {

  private final BorderPane pane;
  private final ScrollPane scroll = new ScrollPane();
  private final Runnable closed;
  private Runnable end = () -> {};

  /**
   * @param closed what happens when nothing stands there any more
   */
  SidePanes(BorderPane pane, Runnable closed) {
    this.pane = pane;
    this.closed = closed;
    scroll.setFitToWidth(true);
    scroll.setFitToHeight(true);
    scroll.setMinHeight(0);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setFocusTraversable(false);
    scroll.getStyleClass().addAll("rows", "side");
  }

  boolean shows(Node what) {
    return scroll.equals(pane.getRight()) && what.equals(scroll.getContent());
  }

  /**
   * Opens a pane, or closes it when it is open.
   *
   * @param begun what happens when it is opened
   * @param ended what happens when it is closed again
   */
  void toggle(Node what, Runnable begun, Runnable ended) {
    boolean open = shows(what);
    close();
    if (!open) {
      scroll.setContent(what);
      pane.setRight(scroll);
      scroll.applyCss(); // before that its content is in no window, and cannot have the keys
      end = ended;
      begun.run();
    }
  }

  void close() {
    end.run();
    end = () -> {};
    pane.setRight(null);
    closed.run();
  }
}

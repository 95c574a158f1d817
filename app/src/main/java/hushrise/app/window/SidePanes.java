package hushrise.app.window;

import javafx.scene.Node;
import javafx.scene.layout.BorderPane;

/** What stands at the right of the timeline: nothing, or one pane at a time. */
final class SidePanes {

  private final BorderPane pane;
  private final Runnable closed;
  private Runnable end = () -> {};

  /**
   * @param closed what happens when nothing stands there any more
   */
  SidePanes(BorderPane pane, Runnable closed) {
    this.pane = pane;
    this.closed = closed;
  }

  boolean shows(Node what) {
    return what.equals(pane.getRight());
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
      pane.setRight(what);
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

package hushrise.app.window;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;

/**
 * Files dropped on the window: on the Shelf they stay there, anywhere else they are also placed.
 */
final class Drops {

  /** Takes files that were dropped. */
  @FunctionalInterface
  interface Taker {
    void take(List<Path> files, boolean places);
  }

  private final Node shelf;
  private final BooleanSupplier blocked;
  private final Taker taker;

  /**
   * @param blocked whether a sheet lies over what would take them
   */
  Drops(Node shelf, BooleanSupplier blocked, Taker taker) {
    this.shelf = shelf;
    this.blocked = blocked;
    this.taker = taker;
  }

  /** Lets files be dropped anywhere on the window. */
  void attach(Node root) {
    root.setOnDragOver(
        e -> {
          if (e.getDragboard().hasFiles() && !blocked.getAsBoolean()) {
            e.acceptTransferModes(TransferMode.COPY);
          }
          e.consume();
        });
    root.setOnDragDropped(this::dropped);
  }

  private void dropped(DragEvent e) {
    boolean onShelf =
        shelf.getScene() != null
            && shelf.localToScene(shelf.getBoundsInLocal()).contains(e.getSceneX(), e.getSceneY());
    taker.take(e.getDragboard().getFiles().stream().map(File::toPath).toList(), !onShelf);
    e.setDropCompleted(true);
    e.consume();
  }
}

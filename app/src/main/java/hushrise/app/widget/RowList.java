package hushrise.app.widget;

import java.util.HashSet;
import java.util.List;
import java.util.function.Function;
import javafx.collections.ObservableList;
import javafx.scene.Node;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;

/** A list of rows, of which only those in view are made. */
public final class RowList<T> extends ListView<T> {

  /**
   * A list.
   *
   * @param row makes a row for an item
   */
  public RowList(Function<T, Node> row) {
    getStyleClass().add("row-list");
    setFocusTraversable(false);
    setCellFactory(
        list ->
            new ListCell<>() {
              @Override
              protected void updateItem(T item, boolean empty) {
                super.updateItem(item, empty);
                setGraphic(empty || item == null ? null : row.apply(item));
              }
            });
  }

  /**
   * Makes children the ones wanted and leaves those that stay in their order alone: what is taken
   * out and put back is styled and laid out anew.
   */
  public static void settle(ObservableList<Node> children, List<Node> wanted) {
    children.retainAll(new HashSet<>(wanted));
    for (int i = 0; i < wanted.size(); i++) {
      Node node = wanted.get(i);
      if (i == children.size() || children.get(i) != node) {
        children.remove(node);
        children.add(i, node);
      }
    }
  }
}

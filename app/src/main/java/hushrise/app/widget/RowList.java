package hushrise.app.widget;

import java.util.HashSet;
import java.util.List;
import java.util.function.Function;
import javafx.collections.ObservableList;
import javafx.scene.Node;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.Region;

/** A list of rows, of which only those in view are made. */
public final class RowList<T> extends ListView<T> {

  /**
   * A list.
   *
   * @param row makes a row for an item, which is made as wide as the list
   */
  public RowList(Function<T, ? extends Region> row) {
    getStyleClass().add("row-list");
    setFocusTraversable(false);
    setCellFactory(
        list ->
            new ListCell<>() {
              @Override
              protected void updateItem(T item, boolean empty) {
                super.updateItem(item, empty);
                setPrefWidth(0); // so that the list never scrolls sideways
                setGraphic(empty || item == null ? null : wide(row.apply(item), this));
              }
            });
  }

  private static Region wide(Region row, Region cell) {
    row.prefWidthProperty().bind(cell.widthProperty());
    return row;
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

package hushrise.app.widget;

import java.util.function.Function;
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
}

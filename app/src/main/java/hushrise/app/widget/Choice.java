package hushrise.app.widget;

import java.util.List;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.beans.Observable;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.util.StringConverter;

/**
 * One of several values. What has been chosen stays chosen until something else is: the list that
 * drops down gives its value up when that is pressed with Ctrl held, and nobody means that. Space
 * and Enter open the list, which else Enter would pass to a sheet's usual button.
 */
public final class Choice<T> extends ComboBox<T> {

  private T kept;

  /**
   * @param words what a value is called
   */
  public Choice(String id, Function<T, String> words) {
    setId(id);
    setWords(words);
    // as the first of all who are told of a value
    valueProperty().addListener((Observable value) -> keep());
    addEventFilter(KeyEvent.KEY_PRESSED, this::openBy);
  }

  public Choice(String id, List<T> values, Function<T, String> words) {
    this(id, words);
    getItems().setAll(values);
  }

  /** Sets what a value is called. */
  public void setWords(Function<T, String> words) {
    setConverter(
        new StringConverter<>() {
          @Override
          public String toString(T value) {
            return value == null ? "" : words.apply(value);
          }

          @Override
          public T fromString(String typed) {
            throw new UnsupportedOperationException("It is picked, not typed");
          }
        });
  }

  private void openBy(KeyEvent e) {
    if (!isShowing() && (e.getCode() == KeyCode.SPACE || e.getCode() == KeyCode.ENTER)) {
      show();
      e.consume();
    }
  }

  private void keep() {
    if (getValue() != null) {
      kept = getValue();
    } else if (kept != null && getItems().contains(kept)) {
      setValue(kept);
      Platform.runLater(() -> getSelectionModel().select(getValue()));
    }
  }
}

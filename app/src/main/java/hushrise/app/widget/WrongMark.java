package hushrise.app.widget;

import java.util.Optional;
import javafx.scene.control.TextField;

/** Marks a field whose text cannot be taken; says when that was refused and when it is over. */
final class WrongMark {

  private static final String STYLE = "wrong";

  private final TextField field;
  private Optional<Refused> refused = Optional.empty();

  WrongMark(TextField field) {
    this.field = field;
  }

  /** Marks a text that is not, or not yet, one that can be taken. */
  void set() {
    if (!field.getStyleClass().contains(STYLE)) {
      field.getStyleClass().add(STYLE);
    }
  }

  /** Marks the field and says that a text was refused. */
  void refuse(String typed, String takes) {
    set();
    Refused says = new Refused(Refused.TYPE, typed, takes);
    refused = Optional.of(says);
    field.fireEvent(says);
  }

  boolean isRefused() {
    return refused.isPresent();
  }

  /** Takes the mark away, and the word of it back. */
  void clear() {
    field.getStyleClass().remove(STYLE);
    Optional<Refused> was = refused;
    refused = Optional.empty();
    was.ifPresent(r -> field.fireEvent(new Refused(Refused.OVER, r.typed(), r.takes())));
  }
}

package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Session;
import hushrise.app.widget.TypedText;
import hushrise.core.project.Project;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Bounds;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/**
 * The text to read while a take is spoken: written as plain text with an empty line between
 * passages, read large, one passage marked. It goes on to the next one when the reader has paused
 * after speaking, or by a key. It is kept in the project.
 */
public final class ReadingPane extends StackPane {

  private static final long PAUSE_NANOS = 1_300_000_000L;

  private final TypedText written = new TypedText(Project.LONGEST_SCRIPT);
  private final VBox passages = new VBox(14);
  private final ScrollPane scroll = new ScrollPane(passages);
  private final List<Label> labels = new ArrayList<>();
  private int current;
  private boolean spoken;
  private long silentSince;

  ReadingPane(Session session) {
    setMinHeight(100);
    written.setId("reading-text");
    written.setPromptText(text("reading.prompt"));
    written.setAccessibleText(text("reading.accessible"));
    scroll.setId("reading");
    scroll.setFitToWidth(true);
    scroll.setFocusTraversable(false);
    scroll.setVisible(false);
    getChildren().addAll(written, scroll);
    written.onTyped(
        typed -> {
          Optional<String> script = Optional.of(typed).filter(t -> !t.isBlank());
          if (!script.equals(session.present().script())) {
            session.commit(text("edit.script"), p -> p.withScript(script));
          }
        });
    session.presentProperty().subscribe(p -> written.show(p.script().orElse("")));
  }

  /** Shows the text to be read, or to be written. */
  void setReading(boolean reads) {
    written.takeTyped();
    boolean shows = reads && !written.getText().isBlank();
    if (shows && !scroll.isVisible()) {
      fill();
    }
    scroll.setVisible(shows);
    written.setVisible(!shows);
  }

  private void fill() {
    labels.clear();
    Arrays.stream(written.getText().strip().split("\\R\\s*\\R"))
        .map(String::strip)
        .map(Label::new)
        .forEach(
            label -> {
              label.setWrapText(true);
              label.getStyleClass().add("reading-passage");
              labels.add(label);
            });
    passages.getChildren().setAll(labels);
    current = Math.min(current, labels.size() - 1);
    spoken = false;
    mark();
  }

  /** Goes to another passage. */
  public void move(int by) {
    if (!labels.isEmpty()) {
      current = Math.clamp(current + by, 0, labels.size() - 1);
      spoken = false;
      mark();
    }
  }

  /** Which passage is marked, counted from 0. */
  public int current() {
    return current;
  }

  private void mark() {
    for (int i = 0; i < labels.size(); i++) {
      labels.get(i).getStyleClass().remove("current");
    }
    Label now = labels.get(current);
    now.getStyleClass().add("current");
    Bounds at = now.getBoundsInParent();
    double room = passages.getHeight() - scroll.getViewportBounds().getHeight();
    scroll.setVvalue(room <= 0 ? 0 : Math.clamp((at.getMinY() - 20) / room, 0, 1));
  }

  /** Is told whether somebody speaks at this moment. */
  void heard(boolean speaking) {
    if (!scroll.isVisible()) {
      return;
    }
    long now = System.nanoTime();
    if (speaking) {
      spoken = true;
      silentSince = now;
    } else if (spoken && now - silentSince > PAUSE_NANOS && current < labels.size() - 1) {
      move(1);
    }
  }
}

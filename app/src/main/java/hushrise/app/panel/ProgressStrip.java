package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Background;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;

/** What is under way in the background: its words, how far it is, and a way to end it. */
public final class ProgressStrip extends HBox {

  private final Background background;
  private final Label words = new Label();
  private final ProgressBar bar = new ProgressBar();
  private final Button cancel = new Button(text("sheet.cancel"));

  public ProgressStrip(Background background) {
    super(8);
    this.background = background;
    setId("progress-strip");
    setAlignment(Pos.CENTER_RIGHT);
    bar.setPrefWidth(120);
    bar.setAccessibleText(text("job.accessible"));
    cancel.getStyleClass().add("small");
    cancel.setId("job-cancel");
    cancel.setOnAction(e -> background.jobs().forEach(j -> j.cancelled().set(true)));
    background.jobs().addListener((ListChangeListener<Background.Job>) c -> update());
    update();
  }

  private void update() {
    bar.progressProperty().unbind();
    if (background.jobs().isEmpty()) {
      getChildren().clear();
      return;
    }
    Background.Job job = background.jobs().getFirst();
    int more = background.jobs().size() - 1;
    words.setText(more == 0 ? job.words() : text("job.more", job.words(), more));
    bar.progressProperty().bind(job.fraction());
    getChildren().setAll(words, bar, cancel);
  }
}

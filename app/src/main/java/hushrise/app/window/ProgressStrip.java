package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Job;
import hushrise.app.job.Jobs;
import hushrise.app.widget.Form;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/**
 * What is under way in the background: words, how far it is, and a way to end it, each for itself.
 * The first is shown, the others behind a button.
 */
final class ProgressStrip extends HBox {

  private static final double BAR = 120;
  private static final double SHORTEST_SECONDS = 2;

  private final Jobs jobs;

  ProgressStrip(Jobs jobs) {
    super(8);
    this.jobs = jobs;
    setId("progress-strip");
    setAlignment(Pos.CENTER_RIGHT);
    jobs.shown().addListener((ListChangeListener<Job>) c -> update());
    update();
  }

  private void update() {
    getChildren().clear();
    if (jobs.shown().isEmpty()) {
      return;
    }
    getChildren().add(row(jobs.shown().getFirst(), "job-cancel"));
    int more = jobs.shown().size() - 1;
    if (more > 0) {
      MenuButton others = new MenuButton(text("job.more", more));
      others.setId("job-more");
      others.getStyleClass().add("small");
      for (Job job : jobs.shown().subList(1, jobs.shown().size())) {
        CustomMenuItem item = new CustomMenuItem(row(job, "job-cancel-other"), false);
        others.getItems().add(item);
      }
      getChildren().add(others);
    }
  }

  /** The time left, for what takes long enough that somebody asks. */
  private static String left(Job job) {
    double seconds = job.secondsLeft().orElse(0);
    return seconds > SHORTEST_SECONDS ? text("job.left", "%.0f".formatted(Math.ceil(seconds))) : "";
  }

  private static HBox row(Job job, String cancelId) {
    Label words = new Label(job.words());
    words.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(words, Priority.ALWAYS);
    ProgressBar bar = new ProgressBar();
    bar.setPrefWidth(BAR);
    bar.setAccessibleText(text("job.accessible"));
    bar.progressProperty().bind(job.fractionProperty());
    Button cancel = Form.button(cancelId, text("sheet.cancel"), job::cancel);
    cancel.setAccessibleText(text("job.cancel", job.words()));
    Label left = new Label();
    left.getStyleClass().add("number");
    job.fractionProperty().addListener(p -> left.setText(left(job)));
    HBox row = new HBox(8, words, bar, left, cancel);
    row.setAlignment(Pos.CENTER_RIGHT);
    return row;
  }
}

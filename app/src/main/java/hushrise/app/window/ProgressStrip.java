package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Job;
import hushrise.app.job.Jobs;
import hushrise.app.widget.Form;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/**
 * What is under way in the background: words, how far it is, and a way to end it, each for itself.
 * The first is shown, those that come next behind a button.
 */
final class ProgressStrip extends HBox {

  private static final double BAR = 120;
  private static final double SHORTEST_SECONDS = 2;

  /** So many of the others are listed; a menu with all of hundreds would go beyond the screen. */
  private static final int MOST_LISTED = 15;

  private final Jobs jobs;
  private final HBox head = new HBox();
  private final MenuButton others = new MenuButton();
  private final MenuItem unlistedItem = new MenuItem();
  private final Map<Job, MenuItem> waiting = new HashMap<>();
  private Optional<Job> first = Optional.empty();

  ProgressStrip(Jobs jobs) {
    super(8);
    this.jobs = jobs;
    setId("progress-strip");
    setAlignment(Pos.CENTER_RIGHT);
    others.setId("job-more");
    others.getStyleClass().add("small");
    others.setMinWidth(USE_PREF_SIZE);
    unlistedItem.setDisable(true);
    others.setOnShowing(e -> list());
    others.setOnHidden(e -> waiting.clear());
    HBox.setHgrow(head, Priority.ALWAYS);
    head.setAlignment(Pos.CENTER_RIGHT);
    getChildren().addAll(head, others);
    jobs.shown().addListener((ListChangeListener<Job>) c -> update());
    update();
  }

  /** Shows what has changed only: there may be hundreds, and each begins and ends. */
  private void update() {
    List<Job> shown = jobs.shown();
    Optional<Job> now = shown.stream().findFirst();
    if (!now.equals(first)) {
      first = now;
      head.getChildren().setAll(now.map(job -> row(job, "job-cancel")).stream().toList());
    }
    boolean isMore = shown.size() > 1;
    others.setVisible(isMore);
    others.setManaged(isMore);
    if (!isMore) {
      others.hide();
      return;
    }
    others.setText(text("job.more", shown.size() - 1));
    if (others.isShowing()) {
      list();
    }
  }

  private void list() {
    List<Job> rest = jobs.shown().stream().skip(1).limit(MOST_LISTED).toList();
    int unlisted = jobs.shown().size() - 1 - rest.size();
    waiting.keySet().retainAll(rest);
    List<MenuItem> items = new ArrayList<>(rest.stream().map(this::item).toList());
    if (unlisted > 0) {
      unlistedItem.setText(text("job.unlisted", unlisted));
      items.add(unlistedItem);
    }
    if (!others.getItems().equals(items)) {
      others.getItems().setAll(items);
    }
  }

  private MenuItem item(Job job) {
    return waiting.computeIfAbsent(job, j -> new CustomMenuItem(row(j, "job-cancel-other"), false));
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
    bar.setMinWidth(BAR / 2);
    bar.setAccessibleText(text("job.accessible"));
    bar.progressProperty().bind(job.fractionProperty());
    Button cancel = Form.button(cancelId, text("sheet.cancel"), job::cancel);
    cancel.setMinWidth(USE_PREF_SIZE);
    cancel.setAccessibleText(text("job.cancel", job.words()));
    Label left = new Label();
    left.getStyleClass().add("number");
    left.setMinWidth(USE_PREF_SIZE);
    job.fractionProperty().addListener(p -> left.setText(left(job)));
    HBox row = new HBox(8, words, bar, left, cancel);
    row.setAlignment(Pos.CENTER_RIGHT);
    return row;
  }
}

package hushrise.app.window;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/**
 * The window's last line: what it has to say, what is under way, and where sound goes. A sentence
 * that is too long for it stands in two smaller ones.
 */
final class StatusLine extends HBox implements Messages {

  private static final String COMPLAINT = "complaint";
  private static final String LONG = "long";
  private static final double HEIGHT = 28;

  private final Label status = new Label();
  private final Label output = new Label();
  private String toldHint = "";

  StatusLine() {
    super(12);
    status.setId("status");
    status.setMaxWidth(Double.MAX_VALUE);
    setHgrow(status, Priority.ALWAYS);
    status.textTruncatedProperty().subscribe(this::wrap);
    output.getStyleClass().add("faint");
    output.setMinWidth(USE_PREF_SIZE);
    getChildren().addAll(status, output);
    getStyleClass().add("status-line");
    // A job that comes or goes must not move the timeline, least of all under a drag.
    setMinHeight(HEIGHT);
    setMaxHeight(HEIGHT);
  }

  private void wrap(boolean truncated) {
    if (truncated && !getStyleClass().contains(LONG)) {
      getStyleClass().add(LONG);
      status.setTooltip(new Tooltip(status.getText()));
    }
  }

  private void show(String sentence) {
    getStyleClass().remove(LONG);
    status.setTooltip(null);
    status.setText(sentence);
  }

  /** Shows what is under way. */
  void showJobs(Jobs jobs) {
    getChildren().add(1, new ProgressStrip(jobs));
  }

  /** Names where sound goes. */
  void setOutput(String name) {
    output.setText(name);
  }

  /** Says something; it stays until the pointer finds something else to say. */
  @Override
  public void say(String sentence) {
    status.getStyleClass().remove(COMPLAINT);
    show(sentence);
  }

  /** Says what went wrong; it stays until the next thing is said. */
  @Override
  public void complain(String sentence) {
    say(sentence);
    status.getStyleClass().add(COMPLAINT);
  }

  @Override
  public void takeBack(String sentence) {
    if (status.getText().equals(sentence)) {
      say("");
    }
  }

  /** Says what the pointer is over, unless that was said or a complaint stands. */
  void hint(String hint) {
    if (!hint.equals(toldHint)) {
      toldHint = hint;
      if (!status.getStyleClass().contains(COMPLAINT)) {
        show(hint);
      }
    }
  }
}

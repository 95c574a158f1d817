package hushrise.app.panel;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.session.Session;
import hushrise.core.hush.HushDraft;
import hushrise.core.project.Project;
import hushrise.core.project.level.LevelText;
import hushrise.core.time.Timecode;
import java.util.Locale;
import java.util.Optional;
import javafx.beans.value.ObservableNumberValue;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * A hush of a draft: where it begins, how deep it is, what becomes of it, and why. Pressing it goes
 * to the place.
 */
final class DraftRow extends Button {

  private final VBox row;

  /**
   * @param heading what stands over it
   */
  DraftRow(Session session, HushDraft.Line line, Optional<String> heading) {
    Project project = session.shown();
    long frame = line.hush().startFrame();
    Label time = number(clock((long) project.seconds(frame)));
    Label depth = number(LevelText.format(line.hush().depthDb()));
    Label change = new Label(text("draft.change." + line.change().name()));
    change.getStyleClass().addAll("draft-change", line.change().name().toLowerCase(Locale.ROOT));
    String why = text("draft.why." + line.why().name());
    Optional<String> figures = figures(line);
    boolean asNeeded = line.why() == HushDraft.Why.NEEDED;
    Label words = new Label(asNeeded ? figures.orElse(why) : why);
    String all = figures.map(f -> text("draft.measured", why, f)).orElse(why);
    words.getStyleClass().add("faint");
    HBox first = new HBox(8, time, depth, change);
    first.setAlignment(Pos.CENTER_LEFT);
    row = new VBox(first, words);
    heading.map(Label::new).ifPresent(row.getChildren()::addFirst);
    setGraphic(row);
    setMaxWidth(Double.MAX_VALUE);
    setAlignment(Pos.CENTER_LEFT);
    getStyleClass().add("passage");
    String place = Timecode.format(frame, project.pictureRate(), project.sampleRate());
    setTooltip(new Tooltip(place + " \u00b7 " + all));
    setAccessibleText(String.join(", ", place, change.getText(), depth.getText(), all));
    setOnAction(e -> session.seek(frame));
  }

  /** Keeps its words within a width. */
  void fitWidth(ObservableNumberValue width) {
    row.maxWidthProperty().bind(width);
  }

  private static Label number(String words) {
    Label label = new Label(words);
    label.getStyleClass().add("number");
    label.setMinWidth(Region.USE_PREF_SIZE);
    return label;
  }

  /** Minutes and seconds: the list is narrow, and the place is told whole beside the pointer. */
  private static String clock(long seconds) {
    return "%d:%02d".formatted(seconds / 60, seconds % 60);
  }

  /** How loud the voice and the rest are, where that was measured. */
  private static Optional<String> figures(HushDraft.Line line) {
    return Double.isFinite(line.voiceLufs()) && Double.isFinite(line.backgroundLufs())
        ? Optional.of(
            text(
                "draft.figures",
                figure("%.1f", line.voiceLufs()),
                figure("%.1f", line.backgroundLufs())))
        : Optional.empty();
  }
}

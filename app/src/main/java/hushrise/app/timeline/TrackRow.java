package hushrise.app.timeline;

import hushrise.core.project.timeline.Track;
import java.util.function.Predicate;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;

/** One track's row: its head, its lane, and the marks over that. */
final class TrackRow extends HBox {

  private final TrackHead head;
  private final Lane lane;
  private final HotMarks marks;

  /**
   * @param inView whether a lane can be seen; what cannot is drawn when it comes into view
   */
  TrackRow(
      Viewport view, Desk desk, Track track, Ground ground, BoxSelect box, Predicate<Node> inView) {
    head = new TrackHead(view, desk, track, this::setRowHeight);
    head.setId(track.id());
    head.minWidthProperty().bind(view.headWidthProperty());
    head.maxWidthProperty().bind(view.headWidthProperty());
    lane = new Lane(view, track, ground, box, inView);
    marks = new HotMarks(view, track.id());
    StackPane both = new StackPane(lane, marks);
    both.setMinWidth(0);
    HBox.setHgrow(both, Priority.ALWAYS);
    getChildren().addAll(head, both);
    layoutYProperty().addListener(p -> lane.catchUp()); // it may have come into view
  }

  TrackHead head() {
    return head;
  }

  Lane lane() {
    return lane;
  }

  HotMarks marks() {
    return marks;
  }

  /** Makes the row as high as this. */
  void setRowHeight(double height) {
    head.setRowHeight(height);
    lane.setMinHeight(height);
    lane.setPrefHeight(height);
    lane.setMaxHeight(height);
  }
}

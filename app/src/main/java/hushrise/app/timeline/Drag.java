package hushrise.app.timeline;

import static hushrise.app.words.Texts.figure;

import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * A drag in a lane, from press to release: an edit that depends on where the pointer is, and the
 * number to show. What it held at the press is where it starts from; what it makes of a project it
 * makes of whichever is present.
 */
abstract class Drag {

  /** How far the pointer moves before anything is dragged, in pixels. */
  static final double SLACK = 3;

  /**
   * Where the pointer is.
   *
   * @param x in the lane where the drag started
   * @param y in the lane where the drag started
   * @param freed whether the key is held that frees the drag from its axis and from snapping
   * @param trackUnder the track whose lane the pointer is over
   */
  record Pull(double x, double y, boolean freed, Optional<String> trackUnder) {}

  private final double pressX;
  private final double pressY;
  private Pull pull;
  private boolean moved;
  private String sign = "";

  Drag(double pressX, double pressY) {
    this.pressX = pressX;
    this.pressY = pressY;
    this.pull = new Pull(pressX, pressY, false, Optional.empty());
  }

  /** Follows the pointer; false while it has not gone far enough to drag anything. */
  boolean pull(Pull to) {
    pull = to;
    moved |= isFarEnough(to.x() - pressX, to.y() - pressY);
    return moved;
  }

  /** Whether the pointer has gone far enough from where it was pressed, in pixels. */
  boolean isFarEnough(double across, double down) {
    return Math.max(Math.abs(across), Math.abs(down)) > SLACK;
  }

  /** What the drag makes of a project, with the pointer where it is. */
  abstract Project apply(Project base);

  /** What is selected during and after the drag. */
  abstract Selection selection();

  /** What undo calls it. */
  abstract String name();

  /** The place on the timeline that draws what is dragged; empty while none does. */
  OptionalLong snapPlace() {
    return OptionalLong.empty();
  }

  boolean hasMoved() {
    return moved;
  }

  /** The number to show; empty before anything has moved. */
  String sign() {
    return sign;
  }

  void setSign(String words) {
    sign = words;
  }

  /** Says a change of level. */
  void setSignOfChange(double byDb) {
    sign = figure(byDb > 0 ? "+%.1f dB" : "%.1f dB", byDb);
  }

  Pull pull() {
    return pull;
  }

  double pressX() {
    return pressX;
  }

  double pressY() {
    return pressY;
  }

  /** How far the pointer has gone across, in frames. */
  long byFrames(TimeAxis axis) {
    return Math.round((pull.x() - pressX) * axis.framesPerPixel());
  }

  /** A level to a tenth of a dB, as drags set it. */
  static double tenths(double db) {
    return Math.round(db * 10) / 10.0;
  }
}

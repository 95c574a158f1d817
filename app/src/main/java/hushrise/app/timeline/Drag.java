package hushrise.app.timeline;

import hushrise.app.Selection;
import hushrise.core.project.Project;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * A drag in a lane, from press to release: what it would make of the project at each place of the
 * pointer, and the number to show. The project it started from is never changed.
 */
interface Drag {

  /**
   * Where the pointer is.
   *
   * @param x in the lane where the drag started
   * @param y in the lane where the drag started
   * @param freed whether the key is held that frees the drag from its axis and from snapping
   * @param trackUnder the track whose lane the pointer is over
   */
  record Pull(double x, double y, boolean freed, Optional<String> trackUnder) {}

  /** The project with the pointer at a place. */
  Project at(Pull pull);

  /** The number to show; empty before anything has moved. */
  String sign();

  /** What is selected during and after the drag. */
  Selection selection();

  boolean hasMoved();

  /** What undo calls it. */
  String name();

  /** The place on the timeline that draws what is dragged; empty while none does. */
  default OptionalLong snapPlace() {
    return OptionalLong.empty();
  }
}

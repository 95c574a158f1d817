package hushrise.app.timeline;

import hushrise.core.level.TrackCurve;
import hushrise.core.project.Track;
import javafx.scene.Node;

/** What lies at the bottom of a lane: waveforms, or stills. Drawn only when it changes. */
interface Ground {

  Node node();

  /**
   * Draws a track.
   *
   * @param onArrival called when something that was missing has come, to draw again
   */
  void draw(Track track, TrackCurve curve, int width, int height, Runnable onArrival);
}

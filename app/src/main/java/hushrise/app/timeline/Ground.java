package hushrise.app.timeline;

import hushrise.core.level.TrackCurve;
import hushrise.core.project.timeline.Track;
import javafx.scene.Node;

/** What lies at the bottom of a lane: waveforms, or stills. Drawn only when it changes. */
interface Ground {

  Node node();

  /**
   * Draws a track.
   *
   * @return whether all waveforms or stills were there; else it is drawn again when some have come
   */
  boolean draw(Track track, TrackCurve curve, int width, int height);

  /** Gives back the memory of what was drawn, as it has gone out of sight. */
  void letGo();
}

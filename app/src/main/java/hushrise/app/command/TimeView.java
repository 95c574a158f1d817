package hushrise.app.command;

import hushrise.core.time.Span;

/** The stretch of time that the timeline shows, as commands move it. */
public interface TimeView {

  /** Zooms around the playhead. */
  void zoomAtPlayhead(double factor);

  /** Shows the whole film. */
  void fit();

  /** Shows a stretch of time, with a margin. */
  void show(Span span);

  /** Brings a frame into view. */
  void reveal(long frame);
}

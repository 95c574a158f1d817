package hushrise.core.project.timeline;

/** How a piece of music is brought to a length. */
public enum FitMode {
  /** Cut at the end, with a fade. */
  TRIM,
  /** Repeated from a place that sounds alike, cut at the end, with a fade. */
  LOOP,
  /** Shortened or extended inside, so that its own beginning and ending are kept. */
  TAILOR
}

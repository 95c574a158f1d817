package hushrise.core.project.timeline;

/** Which of a stereo medium's channels a clip plays; one alone plays on both sides. */
public enum Side {
  BOTH,
  LEFT,
  RIGHT
}

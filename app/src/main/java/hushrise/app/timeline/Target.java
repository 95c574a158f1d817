package hushrise.app.timeline;

/** What the pointer is over in a lane. */
sealed interface Target {

  /** Nothing that acts. */
  record Nothing() implements Target {}

  /** A clip's body. */
  record OnClip(String clipId) implements Target {}

  /** A clip's first edge. */
  record OnClipStart(String clipId) implements Target {}

  /** A clip's last edge. */
  record OnClipEnd(String clipId) implements Target {}

  /** The foot of a seam. */
  record OnSeam(String clipId, int index) implements Target {}

  /** The keyframe of this index. */
  record OnKeyframe(int index) implements Target {}

  /**
   * The stretch of line before the keyframe of this index; the count of keyframes after the last.
   */
  record OnStretch(int nextIndex) implements Target {}

  /** The floor of a hush. */
  record OnFloor(String hushId) implements Target {}

  /** The handle at the end of a clip's fade-in. */
  record OnFadeIn(String clipId) implements Target {}

  /** The handle at the start of a clip's fade-out. */
  record OnFadeOut(String clipId) implements Target {}

  static Target nothing() {
    return new Nothing();
  }
}

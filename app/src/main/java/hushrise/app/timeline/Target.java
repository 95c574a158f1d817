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

  /** A part of a hush or a rise that is not a hush's floor. */
  record OnShape(String id, Part part) implements Target {}

  /** An edge of the selected stretch of time. */
  record OnSpanEdge(boolean start) implements Target {}

  /** What of a hush or a rise a drag takes hold of. */
  enum Part {
    HUSH_FALL,
    HUSH_START,
    HUSH_END,
    HUSH_RECOVERY,
    RISE_TOP,
    RISE_START,
    RISE_SWELL,
    RISE_RETURN,
    RISE_END;

    boolean isOfHush() {
      return this == HUSH_FALL || this == HUSH_START || this == HUSH_END || this == HUSH_RECOVERY;
    }
  }

  /** A passage in a voice clip, or one of its ends. */
  record OnPassage(String clipId, int index, Hold hold) implements Target {}

  /** What of a passage a drag takes hold of. */
  enum Hold {
    START,
    END,
    BODY
  }

  /** The handle at the end of a clip's fade-in. */
  record OnFadeIn(String clipId) implements Target {}

  /** The handle at the start of a clip's fade-out. */
  record OnFadeOut(String clipId) implements Target {}

  static Target nothing() {
    return new Nothing();
  }
}

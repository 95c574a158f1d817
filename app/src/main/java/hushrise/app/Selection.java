package hushrise.app;

/** What is selected: the one thing whose numbers the detail area shows. */
public sealed interface Selection {

  /** Nothing. */
  record Nothing() implements Selection {}

  /** A track. */
  record OfTrack(String trackId) implements Selection {}

  /** A clip on a track. */
  record OfClip(String trackId, String clipId) implements Selection {}

  /** The keyframe at an instant of a track's line. */
  record OfKeyframe(String trackId, long frame) implements Selection {}

  /** A hush on a track. */
  record OfHush(String trackId, String hushId) implements Selection {}

  /** The empty selection. */
  static Selection nothing() {
    return new Nothing();
  }

  /** The track that the selection lies on; empty without a selection. */
  default String trackId() {
    return switch (this) {
      case Nothing n -> "";
      case OfTrack t -> t.trackId();
      case OfClip c -> c.trackId();
      case OfKeyframe k -> k.trackId();
      case OfHush h -> h.trackId();
    };
  }
}

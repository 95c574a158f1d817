package hushrise.core.project.media;

/** What a media item is for. */
public enum MediaKind {
  PICTURE,
  STILL,
  VOICE,
  MUSIC,
  EFFECT;

  /** The kind of track on which an item of this kind is placed. */
  public TrackKind trackKind() {
    return switch (this) {
      case PICTURE, STILL -> TrackKind.PICTURE;
      case VOICE -> TrackKind.VOICE;
      case MUSIC -> TrackKind.MUSIC;
      case EFFECT -> TrackKind.EFFECTS;
    };
  }

  /** Whether it is seen. */
  public boolean isSeen() {
    return this == PICTURE || this == STILL;
  }
}

package hushrise.core.project.media;

/** What a track carries. */
public enum TrackKind {
  PICTURE,
  VOICE,
  CAMERA,
  MUSIC,
  EFFECTS;

  /** Whether tracks of this kind are heard at all. */
  public boolean sounds() {
    return this != PICTURE;
  }
}

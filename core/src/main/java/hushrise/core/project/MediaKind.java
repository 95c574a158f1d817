package hushrise.core.project;

/** What a media item is for. */
public enum MediaKind {
  PICTURE,
  VOICE,
  MUSIC,
  EFFECT
}

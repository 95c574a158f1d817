package hushrise.core.project;

/** The numbers of a hush that a person can set. */
public enum HushNumber {
  PLACE,
  DEPTH,
  LEAD,
  FALL,
  TAIL,
  RECOVERY
}

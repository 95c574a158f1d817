package hushrise.core.project.level;

/** The numbers of a hush that a person can set. */
public enum HushNumber {
  PLACE,
  DEPTH,
  LEAD,
  FALL,
  TAIL,
  RECOVERY
}

package hushrise.core.project.media;

/** The kinds of licence that people meet music and effects under. */
public enum Licence {
  /** Nobody has looked yet. */
  NOT_KNOWN("", false),
  /** Made by the person who makes the film. */
  OWN("own work", false),
  PUBLIC_DOMAIN("public domain or CC0", false),
  ATTRIBUTION("CC BY", true),
  ATTRIBUTION_SHARE_ALIKE("CC BY-SA", true),
  ATTRIBUTION_NO_DERIVATIVES("CC BY-ND", true),
  ATTRIBUTION_NON_COMMERCIAL("CC BY-NC", true),
  /** Free to use when its maker is named, by words of its own. */
  FREE_WHEN_CREDITED("free when credited", true),
  /** Paid for. */
  BOUGHT("licensed", false),
  OTHER("other terms", true);

  private final String words;
  private final boolean owesCredit;

  Licence(String words, boolean owesCredit) {
    this.words = words;
    this.owesCredit = owesCredit;
  }

  /** What it is called in a line of credits; empty when it is not known. */
  public String words() {
    return words;
  }

  /** Whether its maker has to be named. */
  public boolean owesCredit() {
    return owesCredit;
  }
}

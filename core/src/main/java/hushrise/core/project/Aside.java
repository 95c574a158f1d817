package hushrise.core.project;

/**
 * A finding of the Second Ear that a person has looked at and put aside.
 *
 * @param finding which one
 * @param reason why; possibly empty
 */
public record Aside(String finding, String reason) {

  public Aside {
    reason = reason == null ? "" : reason;
  }
}

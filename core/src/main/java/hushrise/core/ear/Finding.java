package hushrise.core.ear;

import hushrise.core.project.Project;
import hushrise.core.time.Span;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * Something a careful listener would remark on.
 *
 * @param rule which rule found it
 * @param subject what it is about: the same for the same thing after other edits
 * @param place where to listen
 * @param trackId the track to look at; possibly empty
 * @param figures names and numbers that its sentence tells, in their order
 * @param remedies what can be done, best first; possibly none
 */
public record Finding(
    String rule,
    String subject,
    Span place,
    String trackId,
    List<Object> figures,
    List<Remedy> remedies) {

  /**
   * One edit that mends it.
   *
   * @param words which sentence says what it does
   * @param figures names and numbers for that sentence
   * @param edit the edit
   */
  public record Remedy(String words, List<Object> figures, UnaryOperator<Project> edit) {

    public Remedy(String words, UnaryOperator<Project> edit) {
      this(words, List.of(), edit);
    }
  }

  /** What it is put aside by. */
  public String key() {
    return rule + ":" + subject;
  }
}

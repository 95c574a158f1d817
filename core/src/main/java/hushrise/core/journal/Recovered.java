package hushrise.core.journal;

import hushrise.core.edit.History;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;

/**
 * What a journal gives back.
 *
 * @param journal the journal
 * @param project the project's file; empty when it had never been saved
 * @param lastEditAt when the last step was made
 * @param steps how many steps were made since it was saved last, undone and done again included
 * @param history all projects and what was undone, as they were
 * @param end how many bytes of the journal were whole
 * @param lines how many lines of it
 */
public record Recovered(
    Path journal,
    Optional<Path> project,
    Instant lastEditAt,
    int steps,
    History history,
    long end,
    int lines) {

  /** What to call it: the project's name, else its file's, else nothing. */
  public String name() {
    String name = history.present().name();
    return name.isBlank() ? project.map(p -> p.getFileName().toString()).orElse("") : name;
  }

  /** Whether there is anything that no saved file has. */
  public boolean hasWork() {
    return history.hasUnsavedChanges();
  }
}

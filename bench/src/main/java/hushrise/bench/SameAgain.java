package hushrise.bench;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.app.session.Session;
import hushrise.core.project.Project;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Whether all that was done is the same again: undone and done again, and from its file. */
final class SameAgain {

  private SameAgain() {}

  /**
   * Undoes all, does it again, and saves it; each step on the way is one that can be kept.
   *
   * @param folder where a file can be written
   * @return what is not as it was, in sentences
   */
  static List<String> of(Session session, Path folder) {
    List<String> wrong = new ArrayList<>();
    Project worked = session.present();
    List<Project> steps = new ArrayList<>();
    while (session.undoName().isPresent()) {
      steps.add(session.present());
      kept(session, folder).ifPresent(wrong::add);
      session.undo();
    }
    for (int i = steps.size() - 1; i >= 0; i--) {
      String name = session.redoName().orElse("nothing");
      session.redo();
      if (!session.present().equals(steps.get(i))) {
        wrong.add("Done again, '%s' is not what it was.".formatted(name));
      }
    }
    if (!session.present().equals(worked)) {
      wrong.add("Undone and done again, the project is another one.");
    }
    Path file = session.file().orElseThrow();
    ProjectFile.save(session.present(), file);
    session.saved(session.snapshot(), file);
    return wrong;
  }

  private static Optional<String> kept(Session session, Path folder) {
    Path file = folder.resolve("kept.hushrise");
    JsonNode kept = ProjectFile.tree(session.present(), file);
    ProjectFile.save(session.present(), file);
    return ProjectFile.tree(ProjectFile.load(file), file).equals(kept)
        ? Optional.empty()
        : Optional.of(
            "After '%s' the project came back from its file as another one."
                .formatted(session.undoName().orElse("")));
  }
}

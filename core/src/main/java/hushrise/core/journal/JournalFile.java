package hushrise.core.journal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.Problem;
import hushrise.core.edit.History;
import hushrise.core.project.Project;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Optional;

/** What stands in the lines of a journal: a project to begin with, then each step. */
final class JournalFile {

  static final String ENDING = ".journal";
  private static final int VERSION = 1;
  private static final String SAVED = "SAVED";

  /** Media are told from the root of the file system, so that a journal may be moved. */
  private static final Path PLACE = Path.of("/").toAbsolutePath().resolve("journal");

  private JournalFile() {}

  /** A project as it stands in a journal. */
  static ObjectNode tree(Project project) {
    return ProjectFile.tree(project, PLACE);
  }

  /** The first line. */
  static ObjectNode begin(JsonNode base, boolean isSaved, Optional<Path> project) {
    ObjectNode record = JsonNodeFactory.instance.objectNode();
    record.put("journal", VERSION);
    record.put("at", Instant.now().toEpochMilli());
    project.ifPresent(p -> record.put("project", p.toString()));
    record.put("saved", isSaved);
    record.set("base", base);
    return record;
  }

  /** One step; where the project did not change there is no change. */
  static ObjectNode step(History.Event event, String name, Optional<ObjectNode> change) {
    ObjectNode record = did(event.name());
    record.put("name", name);
    change.ifPresent(c -> record.set("change", c));
    return record;
  }

  private static ObjectNode did(String what) {
    ObjectNode record = JsonNodeFactory.instance.objectNode();
    record.put("at", Instant.now().toEpochMilli());
    record.put("did", what);
    return record;
  }

  /**
   * That the project was written to its file.
   *
   * @param isPresent whether it was the present one, with nothing done since
   */
  static ObjectNode saved(Path project, boolean isPresent) {
    ObjectNode record = did(SAVED);
    record.put("project", project.toString());
    record.put("present", isPresent);
    return record;
  }

  /**
   * Replays a journal as far as it is whole.
   *
   * @throws Problem when it cannot be read, or not even its first line is whole
   */
  static Recovered read(Path file) {
    try {
      return read(Files.readAllBytes(file), file);
    } catch (IOException e) {
      throw new Problem(
          "The journal %s cannot be read: check that you may open it.".formatted(file), e);
    }
  }

  static Recovered read(byte[] bytes, Path file) {
    JournalLines lines = new JournalLines(bytes);
    JsonNode first = lines.next().orElseThrow(() -> unusable(file));
    if (first.path("journal").asInt() != VERSION) {
      throw unusable(file);
    }
    Replay replay = new Replay(first);
    long end = lines.end();
    int whole = 1;
    for (Optional<JsonNode> next = lines.next(); next.isPresent(); next = lines.next()) {
      if (!replay.takes(next.get())) {
        break;
      }
      end = lines.end();
      whole = lines.number();
    }
    return new Recovered(
        file, replay.project, replay.lastEditAt, replay.steps, replay.history, end, whole);
  }

  private static Problem unusable(Path file) {
    return new Problem(
        "The journal %s holds nothing that can be given back: its first line is not whole."
            .formatted(file));
  }

  /** The history that the lines so far have made. */
  private static final class Replay {
    private final History history;

    /** The JSON of each project; they share what they have in common. */
    private final Map<Project, JsonNode> trees = new IdentityHashMap<>();

    private Optional<Path> project;
    private Instant lastEditAt;
    private int steps;

    Replay(JsonNode first) {
      history = new History(ProjectFile.read(first.path("base"), PLACE));
      trees.put(history.present(), first.path("base"));
      if (!first.path("saved").asBoolean()) {
        history.markUnsaved();
      }
      project = path(first);
      lastEditAt = at(first);
    }

    private static Optional<Path> path(JsonNode record) {
      return record.hasNonNull("project")
          ? Optional.of(Path.of(record.get("project").asText()))
          : Optional.empty();
    }

    private static Instant at(JsonNode record) {
      return Instant.ofEpochMilli(record.path("at").asLong());
    }

    /** Takes one step; false when it does not fit, after which nothing counts. */
    boolean takes(JsonNode record) {
      try {
        String did = record.path("did").asText();
        if (did.equals(SAVED)) {
          project = path(record).or(() -> project);
          if (record.path("present").asBoolean(true)) {
            history.markSaved(history.snapshot());
            steps = 0;
          }
        } else {
          take(History.Event.valueOf(did), record);
        }
        lastEditAt = at(record);
        return true;
      } catch (IllegalArgumentException | Problem e) {
        return false;
      }
    }

    private void take(History.Event event, JsonNode record) {
      switch (event) {
        case COMMIT -> history.commit(record.path("name").asText(), changed(record));
        case AMEND -> history.amend(changed(record));
        case UNDO -> history.undo();
        case REDO -> history.redo();
      }
      if (event != History.Event.AMEND) {
        steps++;
      }
    }

    private Project changed(JsonNode record) {
      Project before = history.present();
      if (!record.has("change")) {
        return before;
      }
      JsonNode tree = TreeChange.applied(trees.get(before), record.get("change"));
      Project now = ProjectFile.readOwn(tree, PLACE, trees.get(before), before);
      trees.put(now, tree);
      return now;
    }
  }
}

package hushrise.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.edit.History;
import hushrise.core.journal.Journal;
import hushrise.core.project.Project;
import hushrise.core.store.ProjectFile;
import hushrise.media.UserFolders;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What a crash has left, given back without a window. */
class RecoverCommandTest extends CommandLineTestCase {

  private static final Path JOURNALS = UserFolders.work().resolve("journals");

  @AfterEach
  void clear() throws IOException {
    if (Files.isDirectory(JOURNALS)) {
      try (Stream<Path> all = Files.list(JOURNALS)) {
        for (Path file : all.toList()) {
          Files.delete(file);
        }
      }
    }
  }

  /** Leaves a journal of some steps, as a crash does. */
  private void leave(String name, int steps) throws IOException {
    Path scratch = folder.resolve(name);
    Project project = ProjectFile.load(DEMO.resolve("first-ferry.hushrise")).withName(name);
    try (Journal journal = new Journal(scratch, problem -> {})) {
      History history = new History(project);
      journal.opened(project, Optional.of(DEMO.resolve("first-ferry.hushrise")));
      history.setListener(journal::happened);
      for (int i = 1; i <= steps; i++) {
        history.commit("Lower", history.present().withMasterDb(-i));
      }
      assertThat(journal.flush(10_000)).isTrue();
      Files.createDirectories(JOURNALS);
      try (Stream<Path> all = Files.list(scratch)) {
        for (Path file : all.toList()) {
          Files.copy(file, JOURNALS.resolve(name + ".journal"));
        }
      }
    }
  }

  @Test
  void listsWhatIsLeftAndWritesItIntoAProject() throws IOException {
    assertThat(call("recover").out()).contains("Nothing is left");
    leave("Older", 3);
    leave("Newer", 7);
    Files.writeString(JOURNALS.resolve("broken.journal"), "nothing whole");
    JsonNode left = call("recover", "--list", "--json").json().get("left");
    assertThat(left).hasSize(3);
    assertThat(left.get(0).get("name").asText()).isEqualTo("Newer");
    assertThat(left.get(0).get("steps").asInt()).isEqualTo(7);
    assertThat(left.get(0).get("recoverable").asBoolean()).isTrue();
    assertThat(left.get(0).get("project").asText()).endsWith("first-ferry.hushrise");
    assertThat(left.get(0).get("lastEditAt").asText()).isGreaterThan("2026");
    assertThat(left.get(2).get("recoverable").asBoolean()).isFalse();
    assertThat(call("recover").out()).contains("Older, 3 steps not saved", "broken.journal");

    Path back = folder.resolve("back.hushrise");
    JsonNode written = call("recover", "--to", back.toString(), "2", "--json").json();
    assertThat(written.get("output").asText()).isEqualTo(back.toString());
    Project project = ProjectFile.load(back);
    assertThat(project.name()).isEqualTo("Older");
    assertThat(project.masterDb()).isEqualTo(-3);
    assertThat(project.shelf()).allMatch(media -> Files.exists(media.file()));
    assertThat(call("recover", "--json").json().get("left")).hasSize(2);
    Answer again = call("recover", "--to", back.toString());
    assertThat(again.code()).isEqualTo(1);
    assertThat(again.err()).contains("is there already");
    assertThat(call("recover", "--to", folder.resolve("x.hushrise").toString(), "5").err())
        .contains("There is no number 5");
  }
}

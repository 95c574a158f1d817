package hushrise.core.journal;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.ChildProgram;
import hushrise.core.edit.History;
import hushrise.core.project.Project;
import hushrise.core.store.AtomicFile;
import hushrise.core.store.ProjectFile;
import hushrise.core.store.Versions;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A program that is killed while it edits and saves has lost nothing that it said was kept. */
class KillTest {

  /** How often; more with {@code -Dkills=200}. */
  private static final int KILLS = Integer.getInteger("kills", 12);

  @TempDir private Path folder;

  @Test
  void nothingIsLostWheneverItIsKilled() throws Exception {
    Random random = new Random(20);
    int givenBack = 0;
    for (int kill = 0; kill < KILLS; kill++) {
      Path here = Files.createDirectory(folder.resolve("kill-" + kill));
      int kept = keptWhenKilled(here, random.nextInt(400));
      Path file = here.resolve("film.hushrise");
      int saved = Files.exists(file) ? stepOf(ProjectFile.load(file)) : 0;
      for (Versions.Version version : new Versions(here.resolve("versions")).of(file)) {
        assertThat(stepOf(Versions.load(version, file))).isBetween(1, saved);
      }
      List<Recovered> left = new Journals(here.resolve("journals")).left();
      int recovered = left.isEmpty() ? 0 : stepOf(left.getFirst().history().present());
      assertThat(Math.max(saved, recovered)).as("kill %d", kill).isGreaterThanOrEqualTo(kept);
      givenBack += left.size();
      AtomicFile.clearDead(here);
      try (Stream<Path> all = Files.list(here)) {
        assertThat(all.map(p -> p.getFileName().toString()))
            .as("no part file is left")
            .isSubsetOf("film.hushrise", "versions", "journals");
      }
    }
    assertThat(givenBack).as("work was given back at all").isPositive();
  }

  /** Looking for what was left must not let go of what this process writes. */
  @Test
  void aJournalStaysLockedForOtherProcessesThoughThisOneLooksForOthers() throws Exception {
    Path journals = folder.resolve("journals");
    try (Journal journal = new Journal(journals, problem -> {})) {
      History history = new History(Project.empty("a"));
      journal.opened(history.present(), Optional.empty());
      history.setListener(journal::happened);
      history.commit("Rename", Project.empty("b"));
      assertThat(journal.flush(10_000)).isTrue();
      assertThat(new Journals(journals).left()).isEmpty();
      assertThat(leftForAnother(journals)).as("it is still written").isEqualTo("0");
    }
  }

  private static String leftForAnother(Path journals) throws IOException {
    Process other = ChildProgram.start(CountLeft.class, journals.toString());
    try (BufferedReader said = other.inputReader()) {
      return said.readLine();
    }
  }

  private static int stepOf(Project project) {
    return (int) Math.round(-project.masterDb() * 100_000);
  }

  /** Starts the writer, kills it, and tells the last step that it said was kept. */
  private static int keptWhenKilled(Path here, int afterMillis) throws Exception {
    Process writer = ChildProgram.start(KilledWriter.class, here.toString());
    int kept = 0;
    try (BufferedReader said = writer.inputReader()) {
      String first = said.readLine(); // from here on it is at work
      assertThat(first).as("it works").isNotNull();
      Thread.sleep(afterMillis);
      writer.destroyForcibly();
      for (String line = first; line != null; line = ChildProgram.next(said)) {
        kept = Integer.parseInt(line);
      }
    }
    writer.waitFor();
    return kept;
  }
}

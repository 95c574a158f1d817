package hushrise.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Earlier versions, locks, and what dead processes leave. */
class KeptFilesTest {

  @TempDir private Path folder;

  @Test
  void asManyVersionsAreKeptAsWantedAndEachIsReadFromWhereTheProjectLies() throws IOException {
    Path file = folder.resolve("film.hushrise");
    Versions versions = new Versions(folder.resolve("versions"));
    Project project = Projects.rich(new Projects.Sounds());
    assertThat(versions.of(file)).isEmpty();
    versions.keep(file, 3); // there is nothing yet to keep
    for (int i = 1; i <= 5; i++) {
      versions.keep(file, 3);
      ProjectFile.save(project.withMasterDb(-i), file);
      Files.setLastModifiedTime(file, FileTime.from(Instant.ofEpochSecond(1_000_000 + i)));
    }
    List<Versions.Version> all = versions.of(file);
    assertThat(all)
        .extracting(v -> Versions.load(v, file).masterDb())
        .containsExactly(-4.0, -3.0, -2.0);
    assertThat(all.getFirst().savedAt()).isEqualTo(Instant.ofEpochSecond(1_000_004));
    assertThat(Versions.load(all.getFirst(), file).shelf().getFirst().file())
        .isEqualTo(ProjectFile.load(file).shelf().getFirst().file());
    assertThat(versions.of(folder.resolve("other.hushrise"))).isEmpty();
  }

  @Test
  void aLockIsHeldUntilItIsLetGo() {
    Path file = folder.resolve("film.hushrise");
    Optional<ProjectLock> first = ProjectLock.take(folder, file);
    assertThat(first).isPresent();
    assertThat(ProjectLock.take(folder, file)).isEmpty();
    assertThat(ProjectLock.take(folder, folder.resolve("other.hushrise"))).isPresent();
    first.get().close();
    assertThat(ProjectLock.take(folder, file)).isPresent();
  }

  @Test
  void whereLocksCannotBeWrittenNobodyIsLockedOut() throws IOException {
    Path inTheWay = Files.createFile(folder.resolve("locks"));
    assertThat(ProjectLock.take(inTheWay, folder.resolve("film.hushrise"))).isPresent();
  }

  @Test
  void partFilesOfTheDeadGoAndThoseOfTheLivingStay() throws Exception {
    Process ended = new ProcessBuilder("true").start();
    ended.waitFor();
    Path dead = Files.createFile(folder.resolve(".hushrise-" + ended.pid() + "-abc.part"));
    Path alive =
        Files.createFile(
            folder.resolve(".hushrise-" + ProcessHandle.current().pid() + "-abc.part"));
    Path other = Files.createFile(folder.resolve(".hushrise-notes.part"));
    AtomicFile.write(folder.resolve("film.txt"), new byte[] {1});
    assertThat(dead).doesNotExist();
    assertThat(alive).exists();
    assertThat(other).exists();
    assertThat(folder.resolve("film.txt")).hasBinaryContent(new byte[] {1});
  }
}

package hushrise.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
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
  void aClockThatWentWrongAndWasSetRightCostsNoLaterVersion() throws IOException {
    Path file = folder.resolve("film.hushrise");
    Versions versions = new Versions(folder.resolve("versions"));
    Project project = Projects.rich(new Projects.Sounds());
    for (int i = 1; i <= 7; i++) {
      versions.keep(file, 3);
      ProjectFile.save(project.withMasterDb(-i), file);
      long wrong = i <= 4 ? 1_000_000_000 : 0;
      Files.setLastModifiedTime(file, FileTime.from(Instant.ofEpochSecond(1_000_000 + wrong + i)));
    }
    versions.keep(file, 3);
    assertThat(versions.of(file))
        .extracting(v -> Versions.load(v, file).masterDb())
        .containsExactly(-7.0, -6.0, -5.0);
  }

  @Test
  void versionsGoAlongWithAProjectThatWasMovedButNotWithACopy() throws IOException {
    Path file = folder.resolve("film.hushrise");
    Versions versions = new Versions(folder.resolve("versions"));
    Project project = Projects.rich(new Projects.Sounds());
    for (int i = 1; i <= 3; i++) {
      versions.keep(file, 5);
      ProjectFile.save(project.withMasterDb(-i), file);
      Files.setLastModifiedTime(file, FileTime.from(Instant.ofEpochSecond(1_000_000 + i)));
      versions.note(file);
    }
    Path copy = Files.copy(file, folder.resolve("copy.hushrise"));
    versions.note(copy);
    assertThat(versions.of(copy)).isEmpty();
    assertThat(versions.of(file)).hasSize(2);

    Path moved = Files.createDirectory(folder.resolve("moved")).resolve("ferry.hushrise");
    Files.move(file, moved);
    versions.note(moved);
    assertThat(versions.of(moved))
        .extracting(v -> Versions.load(v, moved).masterDb())
        .containsExactly(-2.0, -1.0);
    versions.keep(moved, 5);
    assertThat(versions.of(moved)).hasSize(3);
    assertThat(versions.of(file)).isEmpty();
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
    Path alive = AtomicFile.beside(folder.resolve("x"));
    String name = alive.getFileName().toString();
    String own = "-" + ProcessHandle.current().pid() + "-";
    String endedName = name.replace(own, "-" + ended.pid() + "-");
    Path dead = Files.createFile(folder.resolve(endedName));
    Path deadFolder = Files.createDirectory(folder.resolve(endedName.replace(".part", "f.part")));
    Files.createFile(Files.createDirectory(deadFolder.resolve("media")).resolve("song.mp3"));
    Path elsewhere =
        Files.createFile(
            folder.resolve(endedName.replaceFirst("hushrise-\\w+-", "hushrise-4711-")));
    Path longAgo =
        Files.createFile(
            folder.resolve(endedName.replaceFirst("hushrise-\\w+-", "hushrise-4712-")));
    Files.setLastModifiedTime(longAgo, FileTime.from(Instant.now().minus(Duration.ofDays(2))));
    Path other = Files.createFile(folder.resolve(".hushrise-notes.part"));
    AtomicFile.write(folder.resolve("film.txt"), new byte[] {1});
    assertThat(dead).doesNotExist();
    assertThat(deadFolder).doesNotExist();
    assertThat(elsewhere).as("of another machine, whose processes nobody here knows").exists();
    assertThat(longAgo).doesNotExist();
    assertThat(alive).exists();
    assertThat(other).exists();
    assertThat(AtomicFile.isOwnPart(alive)).isTrue();
    assertThat(AtomicFile.isOwnPart(elsewhere)).isFalse();
    AtomicFile.discard(alive);
    assertThat(folder.resolve("film.txt")).hasBinaryContent(new byte[] {1});
  }
}

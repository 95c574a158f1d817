package hushrise.app.file;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What new files are called, and which projects are remembered. */
class FileNamesTest {

  @TempDir private Path folder;

  private static Media media(String file, MediaKind kind) {
    return new Media(file, Path.of(file), kind, 100, true, Optional.empty(), "");
  }

  @Test
  void aProjectWithoutANameGoesByItsPictureOrByWhateverCameFirst() {
    Project empty = Project.empty("");
    assertThat(FileNames.nameOf(empty)).isNotBlank();
    Project sounds = empty.withMedia(media("tide.and.time.mp3", MediaKind.MUSIC));
    assertThat(FileNames.nameOf(sounds)).isEqualTo("tide.and.time");
    assertThat(FileNames.nameOf(sounds.withName("Named"))).isEqualTo("Named");
  }

  @Test
  void aTakenNameGetsANumberAndWhatNoFileMayBeCalledIsLeftOut() throws IOException {
    assertThat(FileNames.free(folder, "film", ".wav")).isEqualTo(folder.resolve("film.wav"));
    Files.createFile(folder.resolve("film.wav"));
    Files.createFile(folder.resolve("film 2.wav"));
    assertThat(FileNames.free(folder, "film", ".wav")).isEqualTo(folder.resolve("film 3.wav"));
    Path safe = FileNames.free(folder, "a/b\\c: \"d\"?\n", ".wav");
    assertThat(safe.getParent()).isEqualTo(folder);
    Files.createFile(safe);
    assertThat(safe).exists();
  }

  @Test
  void anEndingIsAddedOnlyWhereItIsMissing() {
    assertThat(FileNames.withEnding(Path.of("a.wav"), ".wav")).isEqualTo(Path.of("a.wav"));
    assertThat(FileNames.withEnding(Path.of("a.WAV"), ".wav")).isEqualTo(Path.of("a.WAV"));
    assertThat(FileNames.withEnding(Path.of("a.mp4"), ".wav")).isEqualTo(Path.of("a.mp4.wav"));
    assertThat(FileNames.withEnding(Path.of("x", "a"), ".wav")).isEqualTo(Path.of("x", "a.wav"));
  }

  @Test
  void theLatestProjectsComeFirstAndThoseThatAreGoneAreNotOffered() throws IOException {
    RecentProjects recent = new RecentProjects();
    for (int i = 0; i < 9; i++) {
      recent.note(Files.createFile(folder.resolve(i + ".hushrise")));
    }
    recent.note(folder.resolve("5.hushrise"));
    List<Path> all = new RecentProjects().all();
    assertThat(all)
        .extracting(p -> p.getFileName().toString())
        .startsWith("5.hushrise", "8.hushrise");
    assertThat(all).doesNotHaveDuplicates().hasSize(6);
    Files.delete(folder.resolve("8.hushrise"));
    assertThat(recent.all()).doesNotContain(folder.resolve("8.hushrise")).hasSize(5);
  }
}

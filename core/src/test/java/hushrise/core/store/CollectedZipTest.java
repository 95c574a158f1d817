package hushrise.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Zips that projects were collected into, and what strangers send as one. */
class CollectedZipTest {

  @TempDir private Path folder;
  private Path zip;
  private Path target;

  @BeforeEach
  void names() {
    zip = folder.resolve("film.zip");
    target = folder.resolve("film");
  }

  /** Nothing but the zip and what a test has made is there. */
  private void assertNothingLeft() throws IOException {
    try (Stream<Path> all = Files.list(folder)) {
      assertThat(all).containsExactly(zip);
    }
  }

  private void assertRefused(String words) throws IOException {
    assertThatThrownBy(() -> CollectedZip.unpack(zip, target, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(words)
        .hasMessageContaining("film");
    assertNothingLeft();
  }

  private void pack(String... names) throws IOException {
    try (ZipOutputStream out = new ZipOutputStream(Files.newOutputStream(zip))) {
      for (String name : names) {
        out.putNextEntry(new ZipEntry(name));
        if (!name.endsWith("/")) {
          out.write(name.endsWith(ProjectFile.ENDING) ? project(target) : new byte[] {1, 2, 3});
        }
        out.closeEntry();
      }
    }
  }

  private static byte[] project(Path place) {
    return ProjectFile.bytes(Project.empty("film"), place.resolve("film.hushrise"));
  }

  @Test
  void oneThatIsTakenForAProjectSaysHowToUnpackIt() throws IOException {
    pack("film.hushrise");
    assertThatThrownBy(() -> ProjectFile.load(zip))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("film.zip is a zip")
        .hasMessageContaining("hushrise collect");
  }

  @Test
  void whatWasCollectedIsThereAgain() throws IOException {
    Path song = folder.resolve("söng: one\n.mp3");
    byte[] content = new byte[300_000];
    new Random(1).nextBytes(content);
    Files.write(song, content);
    Media media = new Media("s", song, MediaKind.MUSIC, 100, true, Optional.empty(), "");
    Project project = Project.empty("film").withMedia(media);
    ProjectCollection.collect(project, "part 1/2", zip, Progress.NONE);
    Files.delete(song);
    Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));

    Path file = CollectedZip.unpack(zip, elsewhere, Progress.NONE);

    assertThat(file).isEqualTo(elsewhere.resolve("part 1-2.hushrise"));
    Project there = ProjectFile.load(file);
    assertThat(there.shelf().getFirst().file())
        .isEqualTo(elsewhere.resolve("media/söng- one-.mp3"))
        .hasBinaryContent(content);
    assertThat(there.shelf().getFirst().withFile(song)).isEqualTo(media);
  }

  @Test
  void whatFileManagersAddIsLeftOut() throws IOException {
    pack("film/", "film/film.hushrise", "__MACOSX/film/._film.hushrise", "film/.DS_Store");
    assertThat(CollectedZip.unpack(zip, target, Progress.NONE)).exists();
    try (Stream<Path> all = Files.walk(target)) {
      assertThat(all.filter(Files::isRegularFile)).containsExactly(target.resolve("film.hushrise"));
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "../evil.txt",
        "/evil.txt",
        "film/../../evil.txt",
        "film//evil.txt",
        "film/./evil.txt",
        "film/evil\u0000.txt",
        "film/evil\n.txt",
        ".."
      })
  void namesThatLeadElsewhereAreRefused(String name) throws IOException {
    pack("film/film.hushrise", name);
    assertRefused("is no name within a folder");
  }

  @Test
  void whatHoldsNoProjectOrSeveralIsRefused() throws IOException {
    pack("film/readme.txt");
    assertRefused("holds no project");
    pack("a/a.hushrise", "b/b.hushrise");
    assertRefused("holds 2 projects");
  }

  @Test
  void aNameThatComesTwiceIsRefused() throws IOException {
    // The second name differs by a letter that is changed afterwards.
    pack("film/film.hushrise", "film/aaaa.mp3", "film/aaab.mp3");
    byte[] bytes = Files.readAllBytes(zip);
    byte[] wanted = "aaab.mp3".getBytes(StandardCharsets.US_ASCII);
    for (int i = 0; i + wanted.length < bytes.length; i++) {
      if (Arrays.equals(bytes, i, i + wanted.length, wanted, 0, wanted.length)) {
        bytes[i + 3] = 'a';
      }
    }
    Files.write(zip, bytes);
    assertRefused("twice");
  }

  @Test
  void whatUnpacksToFarMoreThanItIsIsRefused() throws IOException {
    byte[] zeros = new byte[1 << 20];
    try (ZipOutputStream out = new ZipOutputStream(Files.newOutputStream(zip))) {
      out.putNextEntry(new ZipEntry("film/film.hushrise"));
      out.write(project(target));
      out.closeEntry();
      out.putNextEntry(new ZipEntry("film/media/song.wav"));
      for (int i = 0; i < 260; i++) {
        out.write(zeros);
      }
      out.closeEntry();
    }
    assertThat(Files.size(zip)).isLessThan(2 << 20);
    assertRefused("unpacks to over");
  }

  @Test
  void whatHoldsFilesWithoutEndIsRefused() throws IOException {
    try (ZipOutputStream out = new ZipOutputStream(Files.newOutputStream(zip))) {
      for (int i = 0; i < 10_001; i++) {
        out.putNextEntry(new ZipEntry("film/" + i + "/"));
        out.closeEntry();
      }
    }
    assertRefused("over 10000 files");
  }

  @Test
  void whatIsCutShortOrDamagedAnywhereIsAProblemOrWhole() throws IOException {
    pack("film/film.hushrise", "film/media/song.mp3");
    byte[] whole = Files.readAllBytes(zip);
    Random random = new Random(7);
    int refused = 0;
    for (int i = 0; i < 300; i++) {
      byte[] changed = whole.clone();
      if (i % 2 == 0) {
        changed = Arrays.copyOf(whole, random.nextInt(whole.length));
      } else {
        changed[random.nextInt(changed.length)] ^= (byte) (1 << random.nextInt(8));
      }
      Files.write(zip, changed);
      try {
        Path file = CollectedZip.unpack(zip, target, Progress.NONE);
        assertThat(file).startsWith(target);
        try (Stream<Path> made = Files.walk(target)) {
          made.sorted(Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
        }
      } catch (Problem e) {
        refused++;
      }
      assertNothingLeft();
    }
    assertThat(refused).isGreaterThan(100);
  }

  @Test
  void nothingIsUnpackedOverWhatIsThere() throws IOException {
    pack("film/film.hushrise");
    Files.createDirectory(target);
    Path kept = Files.createFile(target.resolve("kept.txt"));
    assertThatThrownBy(() -> CollectedZip.unpack(zip, target, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("is not empty");
    assertThat(kept).exists();
    assertThat(target.resolve("film")).doesNotExist();
  }
}

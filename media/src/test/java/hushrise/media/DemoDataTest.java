package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.store.ProjectFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/**
 * The demo that ships is what was made: each of its files has the digest that its project tells.
 */
class DemoDataTest {

  private static final Path FOLDER = Path.of("../demo/data").toAbsolutePath().normalize();

  @Test
  void everyFileOfTheDemoHasItsDigest() throws Exception {
    Project demo = ProjectFile.load(FOLDER.resolve("first-ferry.hushrise"));
    for (Media media : demo.shelf()) {
      assertThat(media.content())
          .as(media.title())
          .isEqualTo(Optional.of(ContentKeys.of(media.file())));
    }
    try (Stream<Path> there = Files.list(FOLDER)) {
      assertThat(there.filter(f -> !f.toString().endsWith(ProjectFile.ENDING)))
          .containsExactlyInAnyOrderElementsOf(demo.shelf().stream().map(Media::file).toList());
    }
  }
}

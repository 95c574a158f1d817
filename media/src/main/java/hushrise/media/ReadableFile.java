package hushrise.media;

import hushrise.core.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Whether there is a file that can be read, in words where there is none. */
final class ReadableFile {

  private ReadableFile() {}

  /**
   * Lets an ordinary file pass.
   *
   * @throws Problem when it is missing, a folder, a device or a pipe, empty, or not to be opened
   */
  static void require(Path file) {
    if (!Files.exists(file)) {
      throw new Problem("There is no file %s: check its name and folder.".formatted(file));
    }
    if (Files.isDirectory(file)) {
      throw new Problem("%s is a folder: choose a file in it.".formatted(file));
    }
    if (!Files.isRegularFile(file)) {
      throw new Problem(
          "%s is a device or a pipe, which has no end: choose an ordinary file.".formatted(file));
    }
    if (!Files.isReadable(file)) {
      throw new Problem("%s cannot be opened: check that you may read it.".formatted(file));
    }
    try {
      if (Files.size(file) == 0) {
        throw new Problem("%s is empty: copy it again from its source.".formatted(file));
      }
    } catch (IOException e) {
      throw new Problem("%s cannot be opened: check that its disk is there.".formatted(file), e);
    }
  }
}

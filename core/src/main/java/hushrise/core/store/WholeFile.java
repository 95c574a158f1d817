package hushrise.core.store;

import hushrise.core.Problem;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** Files that are read whole: ordinary ones, of a size that one of their kind can have. */
public final class WholeFile {

  private WholeFile() {}

  /**
   * All bytes of a file.
   *
   * @param kind what it is called, such as {@code project}
   * @param mostBytes more than this no such file has; no more is read
   * @throws Problem when it is missing, no ordinary file, too large, or cannot be read
   */
  public static byte[] bytes(Path file, String kind, int mostBytes) {
    if (!Files.exists(file)) {
      throw new Problem("There is no %s %s: check its name and folder.".formatted(kind, file));
    }
    if (!Files.isRegularFile(file)) {
      throw new Problem("%s is no ordinary file: choose a %s.".formatted(file, kind));
    }
    try (InputStream in = Files.newInputStream(file)) {
      byte[] bytes = in.readNBytes(mostBytes + 1);
      if (bytes.length > mostBytes) {
        throw new Problem(
            "The %s %s is over %d MB large, which none is: choose another file."
                .formatted(kind, file, mostBytes >> 20));
      }
      return bytes;
    } catch (IOException e) {
      throw new Problem(
          "The %s %s cannot be read: check that you may open it.".formatted(kind, file), e);
    }
  }
}

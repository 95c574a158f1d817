package hushrise.bench;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/** Folders for the length of a measurement. */
final class Scratch {

  private Scratch() {}

  /** A new folder that is gone, with all in it, when the process ends. */
  static Path folder() throws IOException {
    Path folder = Files.createTempDirectory("hushrise-bench");
    Runtime.getRuntime().addShutdownHook(new Thread(() -> delete(folder)));
    return folder;
  }

  /** Deletes a folder and all in it, where it exists. */
  static void delete(Path folder) {
    if (!Files.isDirectory(folder)) {
      return;
    }
    try (Stream<Path> all = Files.walk(folder)) {
      all.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}

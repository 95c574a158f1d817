package hushrise.core.export;

import hushrise.core.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/**
 * Keeps what is written from destroying what is read, or what was just written. Files are compared
 * as files, whatever names and links lead to them.
 */
public final class Outputs {

  private Outputs() {}

  /**
   * Refuses outputs that are inputs or one another.
   *
   * @param inputs what is read
   * @param outputs what is going to be written, all of it
   * @throws Problem naming the file that would be lost
   */
  public static void requireApart(Collection<Path> inputs, Collection<Path> outputs) {
    List<Path> before = new ArrayList<>();
    for (Path output : outputs) {
      if (inputs.stream().anyMatch(in -> isSame(in, output))) {
        throw new Problem(
            "%s is one of the files the film is made of and would be lost: choose another name."
                .formatted(output));
      }
      if (before.stream().anyMatch(other -> isSame(other, output))) {
        throw new Problem(
            "%s would be written twice, and the first of the two would be lost: choose another name or folder."
                .formatted(output));
      }
      before.add(output);
    }
  }

  private static boolean isSame(Path a, Path b) {
    try {
      return real(a).equals(real(b))
          || (Files.exists(a) && Files.exists(b) && Files.isSameFile(a, b));
    } catch (IOException unreadable) {
      return false;
    }
  }

  /** Where a path leads, whether there is a file yet or not. */
  private static Path real(Path path) throws IOException {
    Path absolute = path.toAbsolutePath().normalize();
    if (Files.exists(absolute)) {
      return absolute.toRealPath();
    }
    Path folder = absolute.getParent();
    return folder != null && Files.exists(folder)
        ? folder.toRealPath().resolve(absolute.getFileName())
        : absolute;
  }

  /**
   * Makes sure, before any long work, that at least one of the outputs can be written where it is
   * to be; of several the others are told when their turn comes.
   *
   * @throws Problem when the folder is missing or may not be written
   */
  public static void requireWritable(List<Path> outputs) {
    Optional<Problem> first = Optional.empty();
    for (Path output : outputs) {
      Optional<Problem> problem = unwritable(output.toAbsolutePath().getParent());
      if (problem.isEmpty()) {
        return;
      }
      first = first.or(() -> problem);
    }
    first.ifPresent(
        problem -> {
          throw problem;
        });
  }

  private static Optional<Problem> unwritable(Path folder) {
    if (!Files.isDirectory(folder)) {
      return Optional.of(
          new Problem(
              "The folder %s does not exist: make it first, or choose another.".formatted(folder)));
    }
    return Files.isWritable(folder)
        ? Optional.empty()
        : Optional.of(
            new Problem(
                "Nothing can be written in %s: choose a folder that you may write to."
                    .formatted(folder)));
  }
}

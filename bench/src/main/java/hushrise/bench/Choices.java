package hushrise.bench;

import hushrise.app.file.FileChoice;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;

/**
 * What is chosen in the system's dialogs: the answer that was set; else, while there is a folder to
 * choose from, any file of it, be it of the kind that was asked for or not, or now and then none.
 */
final class Choices implements FileChoice {

  private Optional<Path> answer = Optional.empty();
  private Optional<Path> folder = Optional.empty();
  private Random random = new Random(0);

  /** Gives this answer from now on. */
  void give(Path file) {
    answer = Optional.of(file);
    folder = Optional.empty();
  }

  /** Gives none from now on. */
  void giveNone() {
    answer = Optional.empty();
    folder = Optional.empty();
  }

  /** Chooses by chance from now on, in this folder. */
  void choose(Path in, Random by) {
    answer = Optional.empty();
    folder = Optional.of(in);
    random = by;
  }

  private Optional<Path> chanceOf(Path file) {
    return random.nextInt(4) == 0 ? Optional.empty() : Optional.of(file);
  }

  private Optional<Path> any(Path in) {
    try (Stream<Path> all = Files.list(in)) {
      List<Path> files = all.sorted().toList();
      return chanceOf(files.get(random.nextInt(files.size())));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public List<Path> toRead(Kind kind, String title, boolean many) {
    return answer.or(() -> folder.flatMap(this::any)).stream().toList();
  }

  @Override
  public Optional<Path> toWrite(Kind kind, String title, Path suggestion) {
    return answer.or(
        () ->
            folder.flatMap(
                in ->
                    random.nextInt(5) == 0
                        ? any(in)
                        : chanceOf(in.resolve(suggestion.getFileName()))));
  }

  @Override
  public Optional<Path> folder(Kind kind, String title) {
    return folder.flatMap(in -> chanceOf(in.resolve("folder")));
  }

  @Override
  public Optional<Path> lastFolder(Kind kind) {
    return Optional.empty();
  }
}

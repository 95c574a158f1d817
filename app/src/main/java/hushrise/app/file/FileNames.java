package hushrise.app.file;

import static hushrise.app.words.Texts.text;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.store.PortableName;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;

/** What new files are called. */
public final class FileNames {

  private FileNames() {}

  /** A project's name; one without goes by its picture, or by whatever came first. */
  public static String nameOf(Project project) {
    Optional<Media> first =
        Stream.concat(project.pictureMedia().stream(), project.shelf().stream()).findFirst();
    return project.name().isBlank()
        ? first.map(m -> bare(m.file())).orElse(text("untitled"))
        : project.name();
  }

  /** A file's name without its ending. */
  public static String bare(Path file) {
    return String.valueOf(file.getFileName()).replaceFirst("\\.[^.]+$", "");
  }

  /**
   * A file in a folder that is not there yet: with a number where the plain name is taken.
   *
   * @param ending with its dot
   */
  public static Path free(Path folder, String name, String ending) {
    String safe = PortableName.of(name);
    Path file = folder.resolve(safe + ending);
    for (int n = 2; Files.exists(file); n++) {
      file = folder.resolve(safe + " " + n + ending);
    }
    return file;
  }

  /** A file with an ending: its own where it has that, else put behind its name. */
  public static Path withEnding(Path file, String ending) {
    return file.toString().toLowerCase(java.util.Locale.ROOT).endsWith(ending)
        ? file
        : file.resolveSibling(file.getFileName() + ending);
  }
}

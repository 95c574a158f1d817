package hushrise.app.record;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Session;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Where takes are written, and what the next one is called. */
public final class TakeFiles {

  private final Session session;
  private final ObjectProperty<Optional<Path>> chosenFolder =
      new SimpleObjectProperty<>(Optional.empty());

  TakeFiles(Session session) {
    this.session = session;
  }

  /** The folder that the person chose; empty: one beside the project. */
  public ObjectProperty<Optional<Path>> chosenFolderProperty() {
    return chosenFolder;
  }

  /** Where takes are written: as chosen, beside the project, or in the person's own folder. */
  public Path folder() {
    return chosenFolder.get().orElseGet(this::usualFolder);
  }

  private Path usualFolder() {
    Optional<Path> project = session.file().map(Path::toAbsolutePath);
    String name =
        text("record.folder", project.map(TakeFiles::nameOf).orElse(text("record.unnamed")));
    return project
        .map(f -> f.resolveSibling(name))
        .orElseGet(() -> Path.of(System.getProperty("user.home")).resolve(name));
  }

  private static String nameOf(Path file) {
    return file.getFileName().toString().replaceFirst("\\.[^.]*$", "");
  }

  /** A file that is not there yet, numbered after those that are. */
  Path next() {
    for (int number = 1; ; number++) {
      Path next = folder().resolve(text("record.file", "%02d".formatted(number)));
      if (!Files.exists(next)) {
        return next;
      }
    }
  }
}

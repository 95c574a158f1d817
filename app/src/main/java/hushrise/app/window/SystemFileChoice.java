package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.FileChoice;
import hushrise.core.exchange.Otio;
import hushrise.core.store.ProjectFile;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.prefs.Preferences;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** The system's own file dialogs. */
public final class SystemFileChoice implements FileChoice {

  private final Supplier<Window> owner;
  private final Preferences preferences = Preferences.userNodeForPackage(SystemFileChoice.class);

  /**
   * @param owner the window that the dialogs belong to
   */
  public SystemFileChoice(Supplier<Window> owner) {
    this.owner = owner;
  }

  @Override
  public List<Path> toRead(Kind kind, String title, boolean many) {
    FileChooser chooser = chooser(kind, title);
    lastFolder(kind)
        .or(() -> Optional.of(Path.of(System.getProperty("user.home"))).filter(Files::isDirectory))
        .map(Path::toFile)
        .ifPresent(chooser::setInitialDirectory);
    List<File> files =
        many
            ? chooser.showOpenMultipleDialog(owner.get())
            : Optional.ofNullable(chooser.showOpenDialog(owner.get())).map(List::of).orElse(null);
    List<Path> chosen = files == null ? List.of() : files.stream().map(File::toPath).toList();
    chosen.stream().findFirst().ifPresent(f -> remember(kind, f));
    return chosen;
  }

  @Override
  public Optional<Path> toWrite(Kind kind, String title, Path suggestion) {
    FileChooser chooser = chooser(kind, title);
    Path folder = suggestion.toAbsolutePath().getParent();
    if (folder != null && Files.isDirectory(folder)) {
      chooser.setInitialDirectory(folder.toFile());
    }
    chooser.setInitialFileName(String.valueOf(suggestion.getFileName()));
    Optional<Path> chosen =
        Optional.ofNullable(chooser.showSaveDialog(owner.get())).map(File::toPath);
    chosen.ifPresent(f -> remember(kind, f));
    return chosen;
  }

  @Override
  public Optional<Path> folder(Kind kind, String title) {
    DirectoryChooser chooser = new DirectoryChooser();
    chooser.setTitle(title);
    lastFolder(kind).map(Path::toFile).ifPresent(chooser::setInitialDirectory);
    Optional<Path> chosen = Optional.ofNullable(chooser.showDialog(owner.get())).map(File::toPath);
    chosen.ifPresent(f -> preferences.put("folder." + kind.name(), f.toString()));
    return chosen;
  }

  private static FileChooser chooser(Kind kind, String title) {
    FileChooser chooser = new FileChooser();
    chooser.setTitle(title);
    switch (kind) {
      case PROJECT ->
          chooser
              .getExtensionFilters()
              .add(
                  new FileChooser.ExtensionFilter(
                      text("file.filter.projects"),
                      "*" + ProjectFile.ENDING,
                      "*.zip",
                      "*" + Otio.ENDING));
      case CAPTIONS ->
          chooser
              .getExtensionFilters()
              .add(new FileChooser.ExtensionFilter(text("file.filter.captions"), "*.vtt", "*.srt"));
      case COLLECTION ->
          chooser
              .getExtensionFilters()
              .add(new FileChooser.ExtensionFilter(text("file.filter.zips"), "*.zip"));
      case TIMELINE ->
          chooser
              .getExtensionFilters()
              .add(
                  new FileChooser.ExtensionFilter(
                      text("file.filter.timelines"), "*" + Otio.ENDING));
      case MEDIA, EXPORT, CREDITS, TAKES -> {}
    }
    return chooser;
  }

  @Override
  public Optional<Path> lastFolder(Kind kind) {
    String noted = preferences.get("folder." + kind.name(), "");
    try {
      return noted.isEmpty()
          ? Optional.empty()
          : Optional.of(Path.of(noted)).filter(Files::isDirectory);
    } catch (InvalidPathException e) {
      return Optional.empty();
    }
  }

  private void remember(Kind kind, Path file) {
    Path folder = file.toAbsolutePath().getParent();
    if (folder != null) {
      preferences.put("folder." + kind.name(), folder.toString());
    }
  }
}

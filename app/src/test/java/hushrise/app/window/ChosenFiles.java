package hushrise.app.window;

import hushrise.app.file.FileChoice;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Stands in for the system's file dialogs: gives what a test has put into it, once. */
final class ChosenFiles implements FileChoice {

  private List<Path> next = List.of();
  private final List<Path> suggestions = new ArrayList<>();

  /** What the next dialog gives. */
  void next(Path... files) {
    next = List.of(files);
  }

  /** What was suggested for writing so far. */
  List<Path> suggestions() {
    return suggestions;
  }

  private List<Path> taken() {
    List<Path> chosen = next;
    next = List.of();
    return chosen;
  }

  @Override
  public List<Path> toRead(Kind kind, String title, boolean many) {
    return taken();
  }

  @Override
  public Optional<Path> toWrite(Kind kind, String title, Path suggestion) {
    suggestions.add(suggestion);
    return taken().stream().findFirst();
  }

  @Override
  public Optional<Path> folder(Kind kind, String title) {
    return taken().stream().findFirst();
  }

  @Override
  public Optional<Path> lastFolder(Kind kind) {
    return Optional.empty();
  }
}

package hushrise.app.file;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * Lets a person choose files: the system's own dialogs, or what stands in for them in tests. The
 * folder that a choice was made in last is where the next one of its kind begins.
 */
public interface FileChoice {

  /** Chooses nothing. */
  FileChoice NONE =
      new FileChoice() {
        @Override
        public List<Path> toRead(Kind kind, String title, boolean many) {
          return List.of();
        }

        @Override
        public Optional<Path> toWrite(Kind kind, String title, Path suggestion) {
          return Optional.empty();
        }

        @Override
        public Optional<Path> folder(Kind kind, String title) {
          return Optional.empty();
        }

        @Override
        public Optional<Path> lastFolder(Kind kind) {
          return Optional.empty();
        }
      };

  /** What a choice is for; each kind has its own last folder. */
  enum Kind {
    MEDIA,
    PROJECT,
    EXPORT,
    CAPTIONS,
    CREDITS,
    COLLECTION,
    TIMELINE,
    TAKES
  }

  /**
   * Files to read.
   *
   * @param title what the dialog is called
   * @param many whether more than one may be chosen
   * @return possibly none
   */
  List<Path> toRead(Kind kind, String title, boolean many);

  /**
   * A file to write. The system's dialog asks before it gives one that exists.
   *
   * @param title what the dialog is called
   * @param suggestion where it could go
   * @return empty when none was chosen
   */
  Optional<Path> toWrite(Kind kind, String title, Path suggestion);

  /** A folder; empty when none was chosen. */
  Optional<Path> folder(Kind kind, String title);

  /** The folder that was chosen from last; empty when that is not known. */
  Optional<Path> lastFolder(Kind kind);
}

package hushrise.core.journal;

import hushrise.core.Problem;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The journals that lie in a folder; those that nobody writes any more were left by a crash. */
public final class Journals {

  private static final Logger LOG = LoggerFactory.getLogger(Journals.class);

  private final Path folder;

  public Journals(Path folder) {
    this.folder = folder;
  }

  /** Where they lie. */
  public Path folder() {
    return folder;
  }

  /**
   * What was left with work that no saved file has, the latest first. Those without such work are
   * removed; one that cannot be read stays, for a newer version may.
   */
  public List<Recovered> left() {
    List<Recovered> left = new ArrayList<>();
    for (Path file : files()) {
      read(file)
          .ifPresent(
              recovered -> {
                if (recovered.hasWork()) {
                  left.add(recovered);
                } else {
                  discard(recovered);
                }
              });
    }
    left.sort(Comparator.comparing(Recovered::lastEditAt).reversed());
    return List.copyOf(left);
  }

  /** Journals that nobody writes and nothing can be given back from. */
  public List<Path> unreadable() {
    return files().stream().filter(file -> !isWritten(file) && read(file).isEmpty()).toList();
  }

  private static Optional<Recovered> read(Path file) {
    try {
      return isWritten(file) ? Optional.empty() : Optional.of(JournalFile.read(file));
    } catch (Problem e) {
      LOG.info("Nothing can be given back from {}", file, e);
      return Optional.empty();
    }
  }

  /** Removes a journal that is not needed any more. */
  public void discard(Recovered recovered) {
    try {
      Files.deleteIfExists(recovered.journal());
    } catch (IOException e) {
      LOG.warn("The journal {} could not be removed", recovered.journal(), e);
    }
  }

  private List<Path> files() {
    if (!Files.isDirectory(folder)) {
      return List.of();
    }
    try (Stream<Path> all = Files.list(folder)) {
      return all.filter(p -> p.toString().endsWith(JournalFile.ENDING)).toList();
    } catch (IOException e) {
      LOG.warn("The folder of journals {} cannot be read", folder, e);
      return List.of();
    }
  }

  /** Whether a running program has it open for writing. */
  private static boolean isWritten(Path file) {
    if (Journal.isWrittenHere(file)) {
      return true;
    }
    try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE);
        FileLock lock = channel.tryLock()) {
      return lock == null;
    } catch (OverlappingFileLockException byThisProcess) {
      return true;
    } catch (IOException e) {
      LOG.info("The journal {} cannot be opened", file, e);
      return true;
    }
  }
}

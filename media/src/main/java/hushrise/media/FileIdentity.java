package hushrise.media;

import hushrise.core.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * Which file it is that lies under a name now: one that is written anew is another. Part of every
 * key by which something is kept of a file.
 *
 * @param path absolute and plain
 * @param size in bytes
 * @param modifiedNanos when it was written last
 * @param fileKey what the file system tells it by; empty where there is nothing such
 */
public record FileIdentity(Path path, long size, long modifiedNanos, String fileKey) {

  /**
   * The file under a name.
   *
   * @throws Problem when it is missing, a device or a pipe, or cannot be read
   */
  public static FileIdentity of(Path file) {
    Path absolute = file.toAbsolutePath().normalize();
    try {
      BasicFileAttributes facts = Files.readAttributes(absolute, BasicFileAttributes.class);
      if (facts.isOther()) {
        throw new Problem(
            "%s is a device or a pipe, which has no end: choose an ordinary file.".formatted(file));
      }
      return new FileIdentity(
          absolute,
          facts.size(),
          facts.lastModifiedTime().to(TimeUnit.NANOSECONDS),
          facts.fileKey() == null ? "" : facts.fileKey().toString());
    } catch (IOException e) {
      throw new Problem(
          Files.exists(absolute)
              ? "%s cannot be read: check that you may open it.".formatted(file)
              : "There is no file %s: check its name and folder.".formatted(file),
          e);
    }
  }

  /** The file under a name; empty while there is none. */
  public static Optional<FileIdentity> ifThere(Path file) {
    try {
      return Optional.of(of(file));
    } catch (Problem missing) {
      return Optional.empty();
    }
  }

  /** Tells the file from what may lie there later; without blanks. */
  String stamp() {
    return size + "-" + modifiedNanos;
  }
}

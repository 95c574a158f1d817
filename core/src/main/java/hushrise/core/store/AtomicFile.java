package hushrise.core.store;

import hushrise.core.Ids;
import hushrise.core.Problem;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** Files that are either the old one or the new one, whole. */
public final class AtomicFile {

  /** Part files that are being written; none of them outlives the program. */
  private static final Set<Path> PARTS = ConcurrentHashMap.newKeySet();

  static {
    Runtime.getRuntime()
        .addShutdownHook(
            Thread.ofPlatform()
                .name("hushrise-part-files")
                .unstarted(() -> PARTS.forEach(part -> part.toFile().delete())));
  }

  private AtomicFile() {}

  /**
   * A file beside {@code target} to write into, on the same disk.
   *
   * @throws Problem when the folder is missing or may not be written
   */
  public static Path beside(Path target) {
    Path folder = target.toAbsolutePath().getParent();
    if (!Files.isDirectory(folder)) {
      throw new Problem(
          "The folder %s does not exist: make it first, or choose another.".formatted(folder));
    }
    if (Files.isDirectory(target)) {
      throw new Problem("%s is a folder: give the name of a file.".formatted(target));
    }
    try {
      Path part = folder.resolve(".%s.part".formatted(Ids.fresh("hushrise")));
      PARTS.add(part);
      return Files.createFile(part);
    } catch (IOException e) {
      throw new Problem(
          "Nothing can be written in %s: choose a folder that you may write to.".formatted(folder),
          e);
    }
  }

  /** Puts a finished file into the place of {@code target}. */
  public static void moveInto(Path finished, Path target) {
    try {
      try {
        Files.move(finished, target, StandardCopyOption.ATOMIC_MOVE);
      } catch (AtomicMoveNotSupportedException e) {
        Files.move(finished, target, StandardCopyOption.REPLACE_EXISTING);
      }
      PARTS.remove(finished);
    } catch (IOException e) {
      discard(finished);
      throw new Problem(
          "%s cannot be replaced: close it elsewhere, or choose another name.".formatted(target),
          e);
    }
  }

  /** Removes a part file; one that is gone already is as good. */
  public static void discard(Path part) {
    try {
      Files.deleteIfExists(part);
      PARTS.remove(part);
    } catch (IOException e) {
      part.toFile().deleteOnExit();
    }
  }

  public static void write(Path target, byte[] bytes) {
    Path part = beside(target);
    try {
      try (FileChannel channel = FileChannel.open(part, StandardOpenOption.WRITE)) {
        ByteBuffer rest = ByteBuffer.wrap(bytes);
        while (rest.hasRemaining()) {
          channel.write(rest);
        }
        channel.force(true);
      }
    } catch (IOException e) {
      discard(part);
      throw new Problem(
          "%s cannot be written (is the disk full?): free some space, or save it elsewhere."
              .formatted(target),
          e);
    }
    moveInto(part, target);
  }
}

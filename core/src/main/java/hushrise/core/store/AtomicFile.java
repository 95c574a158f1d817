package hushrise.core.store;

import hushrise.core.Ids;
import hushrise.core.Problem;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Files, and folders that are filled, which are either the old one or the new one, whole.
 *
 * <p>What is not yet whole lies beside its place under a name that tells the machine and the
 * process that write it, so that it can be cleared away once that process has died. On a shared
 * folder another machine's is left alone until nobody has touched it for a day.
 */
public final class AtomicFile {

  private static final Logger LOG = LoggerFactory.getLogger(AtomicFile.class);

  private static final String PREFIX = ".hushrise-";
  private static final String PART_ENDING = ".part";

  /** A part file's name, with the machine and the process that write it. */
  private static final Pattern PART_NAME =
      Pattern.compile(
          Pattern.quote(PREFIX) + "(\\w+)-(\\d{1,18})-\\w+" + Pattern.quote(PART_ENDING));

  private static final Duration LONG_AGO = Duration.ofDays(1);

  private static final String MACHINE = machine();

  /** Part files that are being written; none of them outlives the program. */
  private static final Set<Path> PARTS = ConcurrentHashMap.newKeySet();

  static {
    Runtime.getRuntime()
        .addShutdownHook(
            Thread.ofPlatform()
                .name("hushrise-part-files")
                .unstarted(() -> PARTS.forEach(AtomicFile::discard)));
  }

  private AtomicFile() {}

  /**
   * A file beside {@code target} to write into, on the same disk.
   *
   * @throws Problem when the folder is missing or may not be written
   */
  public static Path beside(Path target) {
    if (Files.isDirectory(target)) {
      throw new Problem("%s is a folder: give the name of a file.".formatted(target));
    }
    return beside(target, Files::createFile);
  }

  /**
   * As {@link #beside}, a folder to fill.
   *
   * @throws Problem as {@link #beside}
   */
  public static Path folderBeside(Path target) {
    return beside(target, Files::createDirectory);
  }

  @FunctionalInterface
  private interface Making {
    Path make(Path part, FileAttribute<?>... attributes) throws IOException;
  }

  private static Path beside(Path target, Making making) {
    Path folder = target.toAbsolutePath().getParent();
    if (!Files.isDirectory(folder)) {
      throw new Problem(
          "The folder %s does not exist: make it first, or choose another.".formatted(folder));
    }
    try {
      clearDead(folder);
      Path part = folder.resolve(ownPrefix() + Ids.fresh("") + PART_ENDING);
      PARTS.add(part);
      return making.make(part);
    } catch (IOException e) {
      throw new Problem(
          "Nothing can be written in %s: choose a folder that you may write to.".formatted(folder),
          e);
    }
  }

  /** Removes part files that a process left which has died. */
  public static void clearDead(Path folder) {
    try (Stream<Path> all = Files.list(folder)) {
      for (Path part : all.filter(AtomicFile::isDead).toList()) {
        delete(part);
      }
    } catch (IOException e) {
      LOG.debug("Part files in {} could not be cleared away", folder, e);
    }
  }

  /** Whether a file is one that something is being written into. */
  public static boolean isPart(Path file) {
    return PART_NAME.matcher(String.valueOf(file.getFileName())).matches();
  }

  /** Whether it is one that this process writes. */
  public static boolean isOwnPart(Path file) {
    return isPart(file) && file.getFileName().toString().startsWith(ownPrefix() + "-");
  }

  private static String ownPrefix() {
    return PREFIX + MACHINE + "-" + ProcessHandle.current().pid();
  }

  private static boolean isDead(Path file) {
    Matcher name = PART_NAME.matcher(file.getFileName().toString());
    if (!name.matches()) {
      return false;
    }
    if (!name.group(1).equals(MACHINE)) {
      return isLongUntouched(file);
    }
    return ProcessHandle.of(Long.parseLong(name.group(2))).filter(ProcessHandle::isAlive).isEmpty();
  }

  private static boolean isLongUntouched(Path file) {
    try {
      return Files.getLastModifiedTime(file).toInstant().isBefore(Instant.now().minus(LONG_AGO));
    } catch (IOException e) {
      return false;
    }
  }

  /** What this machine, or container, is told from others by, as far as it says who it is. */
  private static String machine() {
    StringBuilder who = new StringBuilder();
    for (String file : List.of("/etc/machine-id", "/etc/hostname")) {
      try {
        who.append(Files.readString(Path.of(file)));
      } catch (IOException e) {
        LOG.debug("{} does not say who this machine is", file, e);
      }
    }
    return ContentDigest.shortOf(who.append(System.getenv("COMPUTERNAME")).toString());
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
      forceFolder(target);
    } catch (IOException e) {
      discard(finished);
      throw new Problem(
          "%s cannot be replaced: close it elsewhere, or choose another name.".formatted(target),
          e);
    }
  }

  /**
   * Forces a folder to disk, so that a new name in it outlives a power cut, where that can be done.
   */
  private static void forceFolder(Path target) {
    try (FileChannel folder =
        FileChannel.open(target.toAbsolutePath().getParent(), StandardOpenOption.READ)) {
      folder.force(true);
    } catch (IOException e) {
      LOG.debug("The folder of {} cannot be forced to disk here", target, e);
    }
  }

  /** Removes a part file; one that is gone already is as good. */
  public static void discard(Path part) {
    try {
      delete(part);
      PARTS.remove(part);
    } catch (IOException e) {
      LOG.debug("{} is cleared away when the program ends, or begins again", part, e);
    }
  }

  private static void delete(Path part) throws IOException {
    if (!Files.exists(part, LinkOption.NOFOLLOW_LINKS)) {
      return;
    }
    try (Stream<Path> all = Files.walk(part)) {
      for (Path file : all.sorted(Comparator.reverseOrder()).toList()) {
        Files.deleteIfExists(file);
      }
    }
  }

  /** Replaces a file's content by a text, as UTF-8, or makes it; gives the file back. */
  public static Path write(Path target, String text) {
    write(target, text.getBytes(StandardCharsets.UTF_8));
    return target;
  }

  /** Replaces a file's content, or makes it. */
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

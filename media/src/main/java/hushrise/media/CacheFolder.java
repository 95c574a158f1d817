package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A folder of things that can be made again: decoded sounds and their peaks. Its size is bounded;
 * the files longest unused go first.
 */
public final class CacheFolder {

  private static final Logger LOG = LoggerFactory.getLogger(CacheFolder.class);

  /** A file up to this size is told from others by all of its bytes. */
  private static final long READ_WHOLE = 64L << 20;

  /** So many parts is the room, of which one is left free. */
  private static final int PARTS = 64;

  private static final int SAMPLE = 1 << 16;
  private static final int SAMPLES = 64;

  private final Path folder;
  private final long mostBytes;

  /** How much may be kept before the folder is looked through again. */
  private long unlooked;

  /**
   * @param folder made when it is missing
   * @param mostBytes how much may lie in it
   */
  public CacheFolder(Path folder, long mostBytes) {
    this.folder = folder;
    this.mostBytes = mostBytes;
    try {
      Files.createDirectories(folder);
    } catch (IOException e) {
      throw new Problem(
          "The cache folder %s cannot be made: check its disk, or set HUSHRISE_CACHE to another folder."
              .formatted(folder),
          e);
    }
  }

  /**
   * The person's own cache folder, or the one that HUSHRISE_CACHE names. It holds at most 20 GiB,
   * or as many as HUSHRISE_CACHE_GIB says.
   */
  public static CacheFolder ofUser() {
    String size = System.getenv("HUSHRISE_CACHE_GIB");
    long gib = size == null || !size.matches("\\d{1,6}") ? 20 : Long.parseLong(size);
    return new CacheFolder(UserFolders.cache().resolve("sounds"), gib << 30);
  }

  Path folder() {
    return folder;
  }

  long mostBytes() {
    return mostBytes;
  }

  /** Where something of a key lies, or would. */
  Path file(String key, String ending) {
    return folder.resolve(key + ending);
  }

  /** A file to write into before {@link #keep}. */
  Path part() {
    return AtomicFile.beside(folder.resolve("new"));
  }

  /** Puts a finished part into its place and makes room. */
  void keep(Path part, Path target) {
    AtomicFile.moveInto(part, target);
    makeRoom(target);
  }

  /** Notes that a file is in use, so that it is among the last to go. */
  void touch(Path file) {
    try {
      Files.setLastModifiedTime(file, FileTime.from(Instant.now()));
    } catch (IOException e) {
      LOG.debug("Could not touch {}", file, e);
    }
  }

  /** What to say when something of a file went missing between making it and using it. */
  Problem lost(String what, Path file) {
    return new Problem(
        "The cache lost the %s of %s while it was in use: try again.".formatted(what, file));
  }

  /**
   * Looks through the folder, which may hold tens of thousands of files, only once as much has been
   * kept as is left free for that; another program may write into it as well.
   */
  private synchronized void makeRoom(Path newest) {
    unlooked -= newest.toFile().length();
    if (unlooked >= 0) {
      return;
    }
    long free = mostBytes / PARTS;
    try (Stream<Path> all = Files.list(folder)) {
      List<Kept> kept = all.flatMap(CacheFolder::look).toList();
      long total = kept.stream().mapToLong(Kept::bytes).sum();
      for (Kept oldest : kept.stream().sorted(Comparator.comparing(Kept::lastUse)).toList()) {
        if (total <= mostBytes - free) {
          break;
        }
        if (!oldest.file().equals(newest) && !AtomicFile.isPart(oldest.file())) {
          total -= oldest.bytes();
          AtomicFile.discard(oldest.file());
        }
      }
      unlooked = free;
    } catch (IOException | UncheckedIOException e) {
      LOG.warn("The cache folder {} could not be tidied", folder, e);
    }
  }

  /** A file as it was when it was looked at: others use and remove files meanwhile. */
  private record Kept(Path file, FileTime lastUse, long bytes) {}

  private static Stream<Kept> look(Path file) {
    try {
      BasicFileAttributes found = Files.readAttributes(file, BasicFileAttributes.class);
      return found.isRegularFile()
          ? Stream.of(new Kept(file, found.lastModifiedTime(), found.size()))
          : Stream.empty();
    } catch (IOException e) {
      LOG.debug("{} is gone", file, e);
      return Stream.empty();
    }
  }

  /**
   * A key for a file's content. Up to 64 MiB it is a digest of all bytes. A larger file is told by
   * its size, the time it was changed and 64 samples of its bytes from start to end.
   */
  static String keyOf(Path file) {
    try (FileChannel channel = FileChannel.open(file)) {
      MessageDigest digest = MessageDigest.getInstance("SHA-256");
      long size = channel.size();
      digest.update(ByteBuffer.allocate(8).putLong(size).flip());
      if (size <= READ_WHOLE) {
        ByteBuffer buffer = ByteBuffer.allocate(1 << 20);
        while (channel.read(buffer) >= 0) {
          digest.update(buffer.flip());
          buffer.clear();
        }
      } else {
        long changed = Files.getLastModifiedTime(file).toMillis();
        digest.update(ByteBuffer.allocate(8).putLong(changed).flip());
        for (int i = 0; i < SAMPLES; i++) {
          ByteBuffer buffer = ByteBuffer.allocate(SAMPLE);
          channel.read(buffer, (size - SAMPLE) / (SAMPLES - 1) * i);
          digest.update(buffer.flip());
        }
      }
      return HexFormat.of().formatHex(digest.digest(), 0, 16);
    } catch (IOException e) {
      throw new Problem(
          Files.exists(file)
              ? "%s cannot be read: check that you may open it.".formatted(file)
              : "There is no file %s: check its name and folder.".formatted(file),
          e);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("Every Java has SHA-256", e);
    }
  }
}

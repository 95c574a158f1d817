package hushrise.core.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Tells windows that one of them has a project open. The system lets the lock go when its process
 * dies, so a dead one locks nobody out.
 */
public final class ProjectLock implements AutoCloseable {

  private static final Logger LOG = LoggerFactory.getLogger(ProjectLock.class);

  /**
   * What this process holds. Such a file is not to be opened a second time: on POSIX systems
   * closing any channel of a file lets all locks of the process on it go.
   */
  private static final Set<Path> HELD = ConcurrentHashMap.newKeySet();

  private final Path file;
  private final Optional<FileChannel> channel;

  private ProjectLock(Path file, Optional<FileChannel> channel) {
    this.file = file;
    this.channel = channel;
  }

  /**
   * Takes the lock of a project.
   *
   * @param folder where locks lie
   * @return empty when another window has it; where locks cannot be written, one that holds nothing
   */
  public static Optional<ProjectLock> take(Path folder, Path project) {
    String name = ContentDigest.shortOf(project.toAbsolutePath().normalize().toString());
    Path file = folder.resolve(name + ".lock");
    if (!HELD.add(file)) {
      return Optional.empty();
    }
    FileChannel channel = null;
    try {
      Files.createDirectories(folder);
      channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      FileLock lock = channel.tryLock();
      if (lock != null) {
        return Optional.of(new ProjectLock(file, Optional.of(channel)));
      }
      HELD.remove(file);
      channel.close();
      return Optional.empty();
    } catch (IOException e) {
      LOG.warn("Whether {} is open elsewhere cannot be told", project, e);
      HELD.remove(file);
      close(channel);
      return Optional.of(none());
    }
  }

  /** Where there is nothing to lock. */
  public static ProjectLock none() {
    return new ProjectLock(Path.of(""), Optional.empty());
  }

  @Override
  public void close() {
    channel.ifPresent(ProjectLock::close);
    HELD.remove(file);
  }

  private static void close(FileChannel channel) {
    try {
      if (channel != null) {
        channel.close();
      }
    } catch (IOException e) {
      LOG.debug("A lock could not be let go", e);
    }
  }
}

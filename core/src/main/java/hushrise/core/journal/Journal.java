package hushrise.core.journal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.Ids;
import hushrise.core.edit.History;
import hushrise.core.project.Project;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Writes every step to disk as it is made, so that a crash costs nothing. Whoever makes the steps
 * only puts them into a queue; one thread works out what changed, writes and forces it.
 *
 * <p>A file begins with the first step after a project was opened, with that project whole. While
 * it is written it is locked, which the system undoes when the process dies. A file that grows over
 * its bound, and one that could not be written, is followed by another that begins with the present
 * project.
 */
public final class Journal implements AutoCloseable {

  private static final Logger LOG = LoggerFactory.getLogger(Journal.class);

  private static final long MOST_BYTES = 32L << 20;
  private static final Runnable END = () -> {};

  /**
   * The files that this process writes. They are not to be opened by it a second time: on POSIX
   * systems closing any channel of a file lets all locks of the process on it go.
   */
  private static final Set<Path> WRITTEN = ConcurrentHashMap.newKeySet();

  private final Path folder;
  private final long mostBytes;
  private final Consumer<String> complain;
  private final BlockingQueue<Runnable> queue = new LinkedBlockingQueue<>();
  private final Thread thread;

  // Of the writing thread alone.
  private Project present = Project.empty("");
  private boolean presentIsSaved = true;
  private Optional<Path> project = Optional.empty();
  private Path file;
  private FileChannel channel;
  private FileLock lock;
  private JsonNode tree;
  private int lines;
  private boolean complained;
  private final List<Path> givenUp = new ArrayList<>();

  /**
   * @param folder where journals lie; made when it is missing
   * @param complain told once when nothing can be written, on another thread
   */
  public Journal(Path folder, Consumer<String> complain) {
    this(folder, MOST_BYTES, complain);
  }

  /**
   * A journal whose files have another bound.
   *
   * @param mostBytes from which size on another file is begun
   */
  public Journal(Path folder, long mostBytes, Consumer<String> complain) {
    this.folder = folder;
    this.mostBytes = mostBytes;
    this.complain = complain;
    thread =
        Thread.ofPlatform()
            .name("hushrise-journal")
            .priority(Thread.MIN_PRIORITY) // a step does not wait for its noting
            .daemon()
            .start(this::work);
  }

  /** Whether this process writes a journal. */
  static boolean isWrittenHere(Path file) {
    return WRITTEN.contains(file);
  }

  /** Begins with another project; the journal of the one before is not needed any more. */
  public void opened(Project base, Optional<Path> from) {
    queue.add(
        () -> {
          discard();
          present = base;
          presentIsSaved = true;
          project = from;
        });
  }

  /** Goes on with a journal that was given back. */
  public void goOn(Recovered recovered) {
    Project now = recovered.history().present();
    boolean isSaved = !recovered.hasWork();
    queue.add(
        () -> {
          discard();
          present = now;
          presentIsSaved = isSaved;
          project = recovered.project();
          attempt(() -> reopen(recovered));
        });
  }

  /** Notes what happened to the history. */
  public void happened(History.Event event, String name, Project now) {
    queue.add(
        () -> {
          attempt(
              () -> {
                beginIfNeeded();
                JsonNode after = JournalFile.tree(now);
                write(JournalFile.step(event, name, TreeChange.between(tree, after)));
                tree = after;
              });
          present = now;
          presentIsSaved = false;
          boundSize();
        });
  }

  /**
   * Notes that the project was written to a file.
   *
   * @param isPresent whether it was the present one; else all steps count as if none was saved, as
   *     which of them were is not kept
   */
  public void saved(Path to, boolean isPresent) {
    queue.add(
        () -> {
          project = Optional.of(to);
          presentIsSaved = isPresent;
          if (channel != null) {
            attempt(() -> write(JournalFile.saved(to, isPresent)));
          }
        });
  }

  /**
   * Waits until all that was noted lies on the disk.
   *
   * @return false when that took longer than the given time
   */
  public boolean flush(long milliseconds) {
    CountDownLatch done = new CountDownLatch(1);
    queue.add(
        () -> {
          attempt(this::force);
          done.countDown();
        });
    try {
      return done.await(milliseconds, TimeUnit.MILLISECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return false;
    }
  }

  /** Ends, and removes the file: what is open was saved, or is not wanted. */
  @Override
  public void close() {
    queue.add(this::discard);
    queue.add(END);
    try {
      thread.join(TimeUnit.SECONDS.toMillis(5));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void work() {
    try {
      Runnable task = queue.take();
      while (task != END) {
        task.run();
        if (queue.isEmpty()) {
          attempt(this::force);
        }
        task = queue.take();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @FunctionalInterface
  private interface Writing {
    void run() throws IOException;
  }

  /**
   * Writes; where that fails in any way, the file is given up and the next step begins another. It
   * stays until then, as what it has is all there is.
   */
  private void attempt(Writing writing) {
    try {
      writing.run();
    } catch (IOException | RuntimeException | Error e) {
      LOG.warn("The journal could not be written", e);
      if (channel != null) {
        givenUp.add(file);
      }
      release();
      if (!complained) {
        complained = true;
        complain.accept(String.valueOf(folder));
      }
    }
  }

  private void beginIfNeeded() throws IOException {
    if (channel != null) {
      return;
    }
    Files.createDirectories(folder);
    file = folder.resolve(Ids.fresh("steps") + JournalFile.ENDING);
    WRITTEN.add(file);
    channel = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
    lock = channel.lock();
    lines = 0;
    tree = JournalFile.tree(present);
    write(JournalFile.begin(tree, presentIsSaved, project));
    removeGivenUp();
  }

  private void removeGivenUp() throws IOException {
    for (Path old : givenUp) {
      Files.deleteIfExists(old);
    }
    givenUp.clear();
  }

  private void reopen(Recovered recovered) throws IOException {
    file = recovered.journal();
    WRITTEN.add(file);
    channel = FileChannel.open(file, StandardOpenOption.WRITE);
    lock = channel.tryLock();
    if (lock == null) {
      throw new IOException("another window goes on with " + file);
    }
    channel.truncate(recovered.end());
    channel.position(recovered.end());
    lines = recovered.lines();
    tree = JournalFile.tree(present);
  }

  private void write(ObjectNode record) throws IOException {
    ByteBuffer line = ByteBuffer.wrap(JournalLines.line(lines, record));
    while (line.hasRemaining()) {
      channel.write(line);
    }
    lines++;
  }

  private void force() throws IOException {
    if (channel != null) {
      channel.force(false);
    }
  }

  private void boundSize() {
    if (channel == null) {
      return;
    }
    attempt(
        () -> {
          if (channel.size() > mostBytes) {
            Path old = file;
            FileChannel oldChannel = channel;
            channel = null;
            beginIfNeeded();
            force();
            oldChannel.close();
            WRITTEN.remove(old);
            Files.deleteIfExists(old);
          }
        });
  }

  /** Lets the file go and leaves it where it lies. */
  private void release() {
    try {
      if (channel != null) {
        channel.close();
      }
    } catch (IOException e) {
      LOG.debug("The journal's file could not be closed", e);
    }
    channel = null;
    lock = null;
    if (file != null) {
      WRITTEN.remove(file);
    }
  }

  private void discard() {
    Path old = channel == null ? null : file;
    release();
    attempt(
        () -> {
          if (old != null) {
            Files.deleteIfExists(old);
          }
          removeGivenUp();
        });
  }
}

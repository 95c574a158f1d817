package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Lets files that nobody here has decoded before be decoded in another process first, with bounded
 * memory and time, so that one that brings the decoder down takes nothing along but that process:
 * its death becomes a sentence. A file that was come through is not looked at again, and its sound
 * lies decoded in the cache by then. What the other process says of a damaged file does not count:
 * this one finds the same, in the usual way.
 *
 * <p>One is in force in a process, or none. Processes are kept for the next file, and one can be
 * started ahead.
 */
public final class FirstLook implements AutoCloseable {

  private static final Logger LOG = LoggerFactory.getLogger(FirstLook.class);
  private static final AtomicReference<FirstLook> IN_FORCE = new AtomicReference<>();

  /** Marks what was come through with these libraries. */
  private static final String MARK = ".seen-8.1";

  private static final long KEPT = 2_000;

  /** How many processes wait for files: of hundreds, two are looked at side by side. */
  private static final int MOST_IDLE = 2;

  private static final int REST_SECONDS = 20;

  /**
   * What a process may take.
   *
   * @param silence how long it may do without telling that it goes on
   * @param mostBytes of memory
   */
  record Bounds(Duration silence, long mostBytes) {

    static final Bounds USUAL = new Bounds(Duration.ofSeconds(40), 1_500L << 20);
  }

  private final Supplier<CacheFolder> cache;
  private final Function<CacheFolder, List<String>> command;
  private final Bounds bounds;
  private final Loading<FileIdentity, Boolean> looks = new Loading<>(KEPT);
  private final BlockingQueue<LookingProcess> idle = new LinkedBlockingQueue<>();
  private final Set<LookingProcess> living = ConcurrentHashMap.newKeySet();
  private final AtomicLong rests = new AtomicLong();
  private volatile boolean closed;

  FirstLook(
      Supplier<CacheFolder> cache, Function<CacheFolder, List<String>> command, Bounds bounds) {
    this.cache = cache;
    this.command = command;
    this.bounds = bounds;
  }

  /**
   * From now on all files are looked at before this process opens them with FFmpeg, unless
   * HUSHRISE_FIRST_LOOK is set to "off".
   *
   * @param cache gives where the process that looks puts decoded sound; asked when there is one
   */
  public static FirstLook inForce(Supplier<CacheFolder> cache) {
    FirstLook look = new FirstLook(cache, LookingMain::command, Bounds.USUAL);
    if ("off".equals(System.getenv("HUSHRISE_FIRST_LOOK"))) {
      look.close();
    } else {
      look.takeForce();
    }
    return look;
  }

  void takeForce() {
    IN_FORCE.set(this);
  }

  /**
   * Comes back once a file may be opened here.
   *
   * @throws Problem when looking at it brought the other process down
   */
  static void pass(Path file, Progress progress) {
    FirstLook look = IN_FORCE.get();
    if (look != null && !AtomicFile.isOwnPart(file)) {
      look.admit(FileIdentity.of(file), progress);
    }
  }

  /** Starts a process now, so that the next file need not wait for one. */
  public void startAhead() {
    if (idle.isEmpty() && !closed) {
      try {
        idle.add(start());
      } catch (IOException e) {
        LOG.warn("No process could be started to look at files", e);
      }
    }
  }

  void admit(FileIdentity file, Progress progress) {
    looks.get(
        file,
        progress,
        p -> {
          String key = ContentKeys.of(file);
          Path mark = cache.get().file(key, MARK);
          if (!Files.exists(mark)) {
            look(file, key, mark, p);
          }
          return true;
        });
  }

  private void look(FileIdentity file, String key, Path mark, Progress progress) {
    LookingProcess process = idle.poll();
    try {
      process = process != null && process.isAlive() ? process : start();
    } catch (IOException e) {
      LOG.warn("{} is opened without having been looked at", file.path(), e);
      return;
    }
    boolean whole = false;
    try {
      process.look(file, key, bounds, progress);
      whole = true;
    } finally {
      if (whole && !closed && idle.size() < MOST_IDLE) {
        rest(process);
      } else {
        end(process);
      }
    }
    try {
      Files.createFile(mark);
    } catch (FileAlreadyExistsException known) {
      LOG.debug("{} was looked at elsewhere", file.path());
    } catch (IOException e) {
      LOG.debug("{} will be looked at again", file.path(), e);
    }
  }

  /** Keeps a process for the next file; after a while of rest one of them is enough. */
  private void rest(LookingProcess process) {
    idle.add(process);
    long number = rests.incrementAndGet();
    CompletableFuture.delayedExecutor(REST_SECONDS, TimeUnit.SECONDS)
        .execute(
            () -> {
              if (number == rests.get() && idle.size() > 1) {
                Optional.ofNullable(idle.poll()).ifPresent(this::end);
              }
            });
  }

  private LookingProcess start() throws IOException {
    if (closed) {
      throw new CancellationException();
    }
    LookingProcess process = new LookingProcess(command.apply(cache.get()));
    living.add(process);
    return process;
  }

  private void end(LookingProcess process) {
    process.close();
    living.remove(process);
  }

  /** Ends the processes; files are opened without a look from now on. */
  @Override
  public void close() {
    closed = true;
    IN_FORCE.compareAndSet(this, null);
    idle.clear();
    living.forEach(LookingProcess::close);
  }
}

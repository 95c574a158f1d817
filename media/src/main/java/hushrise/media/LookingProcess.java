package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A process that looks at files ({@link LookingMain}), one after another. It ends when this one
 * does, as nobody is there any more to write to it.
 */
final class LookingProcess implements AutoCloseable {

  private static final Logger LOG = LoggerFactory.getLogger(LookingProcess.class);
  private static final long LOOK_MILLIS = 40;

  /** Says that the other end has closed. */
  private static final String ENDED = "ended";

  private final Process process;
  private final OutputStream to;
  private final BlockingQueue<String> heard = new LinkedBlockingQueue<>();

  LookingProcess(List<String> command) throws IOException {
    process = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
    to = process.getOutputStream();
    Thread.ofPlatform().daemon().name("hushrise-first-look").start(() -> listen(process));
  }

  private void listen(Process from) {
    try (InputStream in = from.getInputStream();
        BufferedReader lines =
            new BufferedReader(new InputStreamReader(in, StandardCharsets.US_ASCII))) {
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        heard.add(line);
      }
    } catch (IOException e) {
      LOG.debug("The process that looks at files cannot be heard any more", e);
    } finally {
      heard.add(ENDED);
    }
  }

  boolean isAlive() {
    return process.isAlive() && !heard.contains(ENDED);
  }

  /**
   * Has a file decoded.
   *
   * @throws Problem when the process died of it, or had to be ended
   */
  void look(FileIdentity identity, String key, FirstLook.Bounds bounds, Progress progress) {
    Path file = identity.path();
    ask(new LookingMain.Asked(file, key, identity.stamp()));
    long silentSince = System.nanoTime();
    double fraction = 0;
    while (true) {
      String line = next();
      if (LookingMain.DONE.equals(line)) {
        return;
      }
      if (ENDED.equals(line)) {
        throw ended(file, "it ended at once");
      }
      if (line != null) {
        silentSince = System.nanoTime();
        fraction = LookingMain.fractionIn(line, fraction);
      }
      progress.at(fraction);
      if (System.nanoTime() - silentSince > bounds.silence().toNanos()) {
        throw ended(file, "it did not go on for %d s".formatted(bounds.silence().toSeconds()));
      }
      if (residentBytes() > bounds.mostBytes()) {
        throw ended(file, "it took over %d MB of memory".formatted(bounds.mostBytes() >> 20));
      }
    }
  }

  private void ask(LookingMain.Asked asked) {
    try {
      to.write((asked.line() + '\n').getBytes(StandardCharsets.US_ASCII));
      to.flush();
    } catch (IOException e) {
      throw ended(asked.file(), "it ended at once");
    }
  }

  private String next() {
    try {
      return heard.poll(LOOK_MILLIS, TimeUnit.MILLISECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    }
  }

  private static Problem ended(Path file, String how) {
    return new Problem(
        "%s brings down what decodes it (%s): it may be damaged or made to do harm, or its disk is failing. Nothing else was touched; copy it again, convert it first, or use another file."
            .formatted(file, how));
  }

  /** The memory that the process has in use, where the system tells; else 0. */
  private long residentBytes() {
    Path status = Path.of("/proc", Long.toString(process.pid()), "status");
    if (!Files.isReadable(status)) {
      return 0;
    }
    try {
      return Files.readAllLines(status, StandardCharsets.ISO_8859_1).stream()
          .filter(line -> line.startsWith("RssAnon:"))
          .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) << 10)
          .sum();
    } catch (IOException e) {
      return 0; // it has just ended
    }
  }

  @Override
  public void close() {
    process.destroyForcibly();
  }
}

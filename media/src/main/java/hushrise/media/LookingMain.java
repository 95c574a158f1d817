package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.sound.PeakBuilder;
import hushrise.core.store.AtomicFile;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.bytedeco.ffmpeg.global.avutil;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The process that looks at files for another ({@link FirstLook}). It reads a line for each ({@link
 * Asked}); decodes all of its sound into the cache and its picture at some places; tells how far it
 * is and that it is done, whether the file was sound or not.
 */
public final class LookingMain {

  static final String DONE = "done";

  private static final Logger LOG = LoggerFactory.getLogger(LookingMain.class);
  private static final String AT = "at ";

  /** Between two lines about how far it is. */
  private static final long TELL_NANOS = 100_000_000;

  /** No single piece of memory that a decoder asks for may be larger. */
  private static final long LARGEST_PIECE = 512L << 20;

  private static final int PLACES = 8;

  /** At each place. */
  private static final int PICTURES = 12;

  /**
   * A file to look at.
   *
   * @param key of its content, as somebody has worked out
   * @param stamp of the file as it was then
   */
  record Asked(Path file, String key, String stamp) {

    private static final String BETWEEN = " ";

    static Asked in(String line) {
      String[] parts = line.split(BETWEEN);
      byte[] name = Base64.getDecoder().decode(parts[0]);
      return new Asked(Path.of(new String(name, StandardCharsets.UTF_8)), parts[1], parts[2]);
    }

    String line() {
      byte[] name = file.toString().getBytes(StandardCharsets.UTF_8);
      return String.join(BETWEEN, Base64.getEncoder().encodeToString(name), key, stamp);
    }
  }

  private final PrintStream out;
  private final MediaStore store;
  private long toldNanos = System.nanoTime();
  private volatile double fraction;

  private LookingMain(CacheFolder cache, PrintStream out) {
    this.out = out;
    store = new MediaStore(cache);
  }

  /**
   * How to start it with this process's own Java and classes, and with Java's cache of loaded
   * classes where the property {@code hushrise.classes} names one.
   */
  static List<String> command(CacheFolder cache) {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    Optional.ofNullable(System.getProperty("hushrise.classes"))
        .ifPresent(classes -> command.add("-XX:AOTCache=" + classes));
    command.addAll(
        List.of(
            "-Xlog:disable",
            "-Xmx256m",
            "-XX:+UseSerialGC",
            "-XX:+SuppressFatalErrorMessage",
            "--enable-native-access=ALL-UNNAMED",
            "--sun-misc-unsafe-memory-access=allow",
            "-cp",
            System.getProperty("java.class.path"),
            LookingMain.class.getName(),
            cache.folder().toString(),
            Long.toString(cache.mostBytes())));
    return command;
  }

  /** What a line says of how far it is. */
  static double fractionIn(String line, double before) {
    try {
      return line.startsWith(AT) ? Double.parseDouble(line.substring(AT.length())) : before;
    } catch (NumberFormatException e) {
      return before;
    }
  }

  /**
   * Looks at files until nobody asks any more.
   *
   * @param args the cache's folder, and how many bytes may lie in it
   */
  public static void main(String[] args) throws IOException {
    Locale.setDefault(Locale.Category.FORMAT, Locale.ROOT);
    Ffmpeg.load();
    avutil.av_max_alloc(LARGEST_PIECE);
    CacheFolder cache = new CacheFolder(Path.of(args[0]), Long.parseLong(args[1]));
    LookingMain looking = new LookingMain(cache, System.out);
    warmUp(cache);
    BufferedReader asked =
        new BufferedReader(new InputStreamReader(System.in, StandardCharsets.US_ASCII));
    for (String line = asked.readLine(); line != null; line = asked.readLine()) {
      looking.look(Asked.in(line));
    }
  }

  /** Loads what decoding takes, so that the first file need not wait for that. */
  private static void warmUp(CacheFolder cache) {
    Path file = cache.part();
    try (InputStream line = LookingMain.class.getResourceAsStream(RehearsalMicrophone.LINE)) {
      Files.copy(line, file, StandardCopyOption.REPLACE_EXISTING);
      Probe.of(file);
      try (SoundDecoder decoder = SoundDecoder.folded(file, Project.DEFAULT_SAMPLE_RATE)) {
        PeakBuilder built = new PeakBuilder();
        int channels = decoder.channels();
        decoder.decodeTo(
            (planar, n, fraction) -> built.add(planar[0], planar[channels - 1], channels, 0, n));
      }
    } catch (IOException | RuntimeException e) {
      LOG.debug("The first file will take a little longer", e);
    } finally {
      AtomicFile.discard(file);
    }
  }

  private void look(Asked asked) {
    Path file = asked.file();
    fraction = 0;
    try {
      FileIdentity here = FileIdentity.of(file);
      if (here.stamp().equals(asked.stamp())) {
        ContentKeys.learn(here, asked.key());
      }
      Probe probe = Probe.of(file);
      CompletableFuture<Void> pictures =
          CompletableFuture.runAsync(
              () -> probe.picture().ifPresent(p -> lookAtPictures(file, p.seconds())),
              work -> Thread.ofPlatform().start(work));
      if (probe.sound().isPresent()) {
        lookAtSound(file);
      }
      pictures.join(); // an error there ends this process, as one here does
    } catch (Problem e) {
      LOG.debug("{} is not sound", file, e);
    }
    say(DONE);
  }

  private void lookAtSound(Path file) {
    try {
      store.open(
          file,
          Project.DEFAULT_SAMPLE_RATE,
          at -> {
            fraction = at;
            tell();
          });
    } catch (Problem e) {
      LOG.debug("What sounds in {} is not sound", file, e);
    }
  }

  /**
   * Decodes some pictures at some places. From where decoding can begin there, and no further: in a
   * recorded screen the picture that was asked for may lie minutes behind it.
   */
  private void lookAtPictures(Path file, double seconds) {
    try (PictureDecoder decoder = new PictureDecoder(file)) {
      for (int place = 0; place < PLACES; place++) {
        decoder.seek(seconds * place / PLACES);
        for (int i = 0; i < PICTURES && decoder.next(); i++) {
          tell();
        }
      }
    } catch (Problem e) {
      LOG.debug("The pictures of {} are not sound", file, e);
    }
  }

  /** Tells that it goes on, and how far it is; on any thread. */
  private synchronized void tell() {
    if (System.nanoTime() - toldNanos > TELL_NANOS) {
      toldNanos = System.nanoTime();
      say(AT + fraction);
    }
  }

  private void say(String line) {
    out.print(line + "\n");
    out.flush();
    if (out.checkError()) {
      System.exit(1); // nobody listens any more
    }
  }
}

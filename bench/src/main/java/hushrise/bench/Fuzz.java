package hushrise.bench;

import hushrise.core.Problem;
import hushrise.core.exchange.Otio;
import hushrise.core.exchange.OtioReader;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.speech.Captions;
import hushrise.core.store.CollectedZip;
import hushrise.core.store.ProjectCollection;
import hushrise.core.store.ProjectFile;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/**
 * Feeds the readers what strangers send: good files with something changed. Each has to be read, or
 * refused with one of our own sentences, within a bounded time; what is neither is kept.
 */
public final class Fuzz {

  private static final long MOST_SECONDS = 20;
  private static final String[] NUMBERS = {
    "-1",
    "0",
    "1e308",
    "1e999",
    "9223372036854775807",
    "-9223372036854775808",
    "null",
    "\"x\"",
    "[]",
    "{}",
    "0.5",
    "1000000000000",
    "true"
  };

  private interface Reader {
    void read(Path file) throws IOException;
  }

  private record Kind(Path good, String ending, Reader reader) {}

  private final Path folder;
  private final Map<String, Integer> tried = new LinkedHashMap<>();
  private final Map<String, Integer> refused = new LinkedHashMap<>();
  private int found;

  private Fuzz(Path folder) {
    this.folder = folder;
  }

  /**
   * @param args the demo's folder, a folder to work in, minutes, and a seed
   */
  public static void main(String[] args) throws Exception {
    Path demo = Path.of(args[0]).toAbsolutePath();
    Fuzz fuzz = new Fuzz(Files.createDirectories(Path.of(args[1])));
    fuzz.run(demo, Double.parseDouble(args[2]), Long.parseLong(args[3]));
    System.exit(fuzz.found == 0 ? 0 : 1);
  }

  private void run(Path demo, double minutes, long seed) throws Exception {
    MediaStore store = new MediaStore(new CacheFolder(folder.resolve("cache"), 1L << 30));
    Reader sound = file -> store.take(file, MediaKind.MUSIC, Progress.NONE);
    Path vtt = Files.writeString(folder.resolve("good.vtt"), captions());
    Path otio = folder.resolve("good.otio");
    Project project = ProjectFile.load(demo.resolve("first-ferry.hushrise"));
    Files.write(otio, Otio.bytes(project, otio));
    Path zip = folder.resolve("good.zip");
    Media horn = store.take(demo.resolve("ferry-horn.flac"), MediaKind.EFFECT, Progress.NONE);
    ProjectCollection.collect(Project.empty("").withMedia(horn), "film", zip, Progress.NONE);
    Path unpacked = folder.resolve("unpacked");
    List<Kind> kinds =
        List.of(
            new Kind(demo.resolve("first-ferry.hushrise"), ".hushrise", ProjectFile::load),
            new Kind(vtt, ".vtt", file -> Captions.read(file, 48_000)),
            new Kind(otio, ".otio", file -> OtioReader.read(file, store, Progress.NONE)),
            new Kind(
                zip,
                ".zip",
                file -> {
                  Scratch.delete(unpacked);
                  ProjectFile.load(CollectedZip.unpack(file, unpacked, Progress.NONE));
                }),
            new Kind(demo.resolve("harbour-tune.mp3"), ".mp3", sound),
            new Kind(demo.resolve("ferry-horn.flac"), ".flac", sound),
            new Kind(
                demo.resolve("first-ferry.mp4"),
                ".mp4",
                file -> store.take(file, MediaKind.PICTURE, Progress.NONE)));
    long end = System.nanoTime() + (long) (minutes * 60e9);
    ExecutorService worker = Executors.newCachedThreadPool(Thread.ofPlatform().daemon().factory());
    for (long n = 0; System.nanoTime() < end; n++) {
      Random random = new Random((seed + n) * 0x9E37_79B9_7F4A_7C15L); // neighbours are alike else
      Kind kind = kinds.get((int) (n % kinds.size()));
      tryOne(kind, random, seed + n, worker);
    }
    tried.forEach(
        (ending, count) ->
            System.out.printf(
                "%-10s %6d tried, %6d refused with a sentence%n",
                ending, count, refused.getOrDefault(ending, 0)));
    System.out.printf("%d neither read nor refused%n", found);
  }

  private void tryOne(Kind kind, Random random, long seed, ExecutorService worker)
      throws IOException, InterruptedException {
    Path file = folder.resolve("tried" + kind.ending());
    Files.write(file, changed(kind, random));
    tried.merge(kind.ending(), 1, Integer::sum);
    Future<?> reading =
        worker.submit(
            () -> {
              kind.reader().read(file);
              return true;
            });
    try {
      reading.get(MOST_SECONDS, TimeUnit.SECONDS);
    } catch (TimeoutException e) {
      keep(kind, file, seed, "it takes over %d s".formatted(MOST_SECONDS));
    } catch (ExecutionException e) {
      if (e.getCause() instanceof Problem || e.getCause() instanceof CharacterCodingException) {
        refused.merge(kind.ending(), 1, Integer::sum);
      } else {
        keep(kind, file, seed, String.valueOf(e.getCause()));
      }
    }
  }

  private void keep(Kind kind, Path file, long seed, String why) throws IOException {
    found++;
    Path kept = folder.resolve("found-" + seed + kind.ending());
    Files.copy(file, kept, StandardCopyOption.REPLACE_EXISTING);
    System.out.printf("%s: %s%n", kept, why);
  }

  /** A good file with values, bytes, sizes or stretches of it changed, or cut off. */
  private static byte[] changed(Kind kind, Random random) throws IOException {
    byte[] bytes = Files.readAllBytes(kind.good());
    boolean text = !kind.ending().matches("\\.(mp3|flac|mp4|zip)");
    if (text && random.nextInt(4) > 0) {
      String whole = new String(bytes, StandardCharsets.UTF_8);
      for (int i = random.nextInt(3); i >= 0; i--) {
        whole = withOtherNumber(whole, random);
      }
      return whole.getBytes(StandardCharsets.UTF_8);
    }
    if (random.nextInt(5) == 0) {
      return Arrays.copyOf(bytes, random.nextInt(bytes.length));
    }
    int reach = random.nextBoolean() ? Math.min(bytes.length, 4_096) : bytes.length;
    for (int i = random.nextInt(12); i >= 0; i--) {
      int at = random.nextInt(reach);
      if (random.nextInt(3) == 0) { // a size, as of a box, a packet or a table
        for (int k = at; k < Math.min(bytes.length, at + 4); k++) {
          bytes[k] = (byte) (random.nextBoolean() ? 0xFF : random.nextInt(256));
        }
      } else {
        bytes[at] = (byte) random.nextInt(256);
      }
    }
    return bytes;
  }

  private static String withOtherNumber(String text, Random random) {
    int from = random.nextInt(text.length());
    int at = from;
    while (at < text.length() && !Character.isDigit(text.charAt(at))) {
      at++;
    }
    int end = at;
    while (end < text.length() && "0123456789.eE-".indexOf(text.charAt(end)) >= 0) {
      end++;
    }
    return text.substring(0, at) + NUMBERS[random.nextInt(NUMBERS.length)] + text.substring(end);
  }

  static String captions() {
    StringBuilder text = new StringBuilder("WEBVTT\n\n");
    for (int i = 0; i < 20; i++) {
      text.append("00:00:%02d.000 --> 00:00:%02d.500%nLine %d%n%n".formatted(i, i, i));
    }
    return text.toString();
  }
}

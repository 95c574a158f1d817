package hushrise.bench;

import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.media.CacheFolder;
import hushrise.media.FirstLook;
import hushrise.media.MediaStore;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * How long it takes to add a file that nobody here has decoded before: looked at by another process
 * that was started ahead, as the window does, and in turn decoded here at once.
 */
public final class AddBenchmark {

  private static final int RUNS = 9;
  private static final long AHEAD_MILLIS = 2_000;

  private AddBenchmark() {}

  /**
   * @param args the demo's folder
   */
  public static void main(String[] args) throws IOException, InterruptedException {
    Path folder = Scratch.folder();
    CacheFolder cache = new CacheFolder(folder.resolve("cache"), 4L << 30);
    MediaStore store = new MediaStore(cache);
    for (String name : new String[] {"harbour-tune.mp3", "narration-1.flac", "first-ferry.mp4"}) {
      Path good = Path.of(args[0]).resolve(name);
      MediaKind kind =
          name.endsWith("mp4")
              ? MediaKind.PICTURE
              : name.endsWith("mp3") ? MediaKind.MUSIC : MediaKind.VOICE;
      double[] first = new double[RUNS];
      double[] next = new double[RUNS];
      double[] alone = new double[RUNS];
      for (int run = -1; run < RUNS; run++) {
        try (FirstLook look = FirstLook.inForce(() -> cache)) {
          look.startAhead();
          Thread.sleep(AHEAD_MILLIS);
          note(first, run, seconds(store, another(good, folder, run), kind));
          note(next, run, seconds(store, another(good, folder, 100 + run), kind));
        }
        note(alone, run, seconds(store, another(good, folder, 200 + run), kind));
      }
      System.out.printf(
          "%-17s looked at first %.2f s, then %.2f s; decoded at once %.2f s (medians of %d)%n",
          name, median(first), median(next), median(alone), RUNS);
    }
  }

  private static void note(double[] all, int run, double seconds) {
    if (run >= 0) { // the first one warms this process up
      all[run] = seconds;
    }
  }

  private static double median(double[] all) {
    Arrays.sort(all);
    return all[all.length / 2];
  }

  private static double seconds(MediaStore store, Path file, MediaKind kind) {
    long from = System.nanoTime();
    store.take(file, kind, Progress.NONE);
    return (System.nanoTime() - from) / 1e9;
  }

  /** A file of the same sound and other bytes: what follows its end no decoder reads. */
  private static Path another(Path good, Path folder, int number) throws IOException {
    byte[] bytes = Files.readAllBytes(good);
    byte[] more = Arrays.copyOf(bytes, bytes.length + 128);
    byte[] mark = "TAG%d".formatted(number).getBytes(StandardCharsets.US_ASCII);
    System.arraycopy(mark, 0, more, bytes.length, mark.length);
    return Files.write(folder.resolve(number + "-" + good.getFileName()), more);
  }
}

package hushrise.bench;

import com.sun.management.ThreadMXBean;
import hushrise.core.mix.Mixer;
import hushrise.core.play.Player;
import hushrise.core.play.Range;
import hushrise.core.project.Project;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.SystemDevices;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Random;

/**
 * Two minutes of playing a two-hour project at the real pace through the silent output, with a seek
 * every second, and edits in between: under-runs, bytes allocated by the rendering thread, and how
 * long it takes from a seek to its first sample.
 */
public final class PlayBenchmark {

  private static final int RATE = 48_000;
  private static final int SECONDS = 120;

  private PlayBenchmark() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    Path folder = Scratch.folder();
    MediaStore store = new MediaStore(new CacheFolder(folder.resolve("cache"), 4L << 30));
    Project project = LongProject.of(store, folder);
    SystemDevices devices = new SystemDevices();
    Random random = new Random(1);
    double[] millis = new double[SECONDS];
    Player.Listener listener =
        new Player.Listener() {
          @Override
          public void failed(Throwable why) {
            why.printStackTrace();
          }

          @Override
          public void outputLost(String lost, String now) {
            System.out.println(lost + " is lost");
          }
        };
    try (Player player =
        new Player(RATE, devices.standIn(RATE), () -> devices.standIn(RATE), listener)) {
      Mixer mixer = Mixer.of(project, store);
      long length = project.lengthFrames();
      ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
      long thread =
          Thread.getAllStackTraces().keySet().stream()
              .filter(t -> t.getName().equals("hushrise-player"))
              .findFirst()
              .orElseThrow()
              .threadId();
      long before = 0;
      for (int i = -10; i < SECONDS; i++) {
        if (i == 0) {
          before = threads.getThreadAllocatedBytes(thread);
        }
        long at = random.nextLong(length - 10L * RATE);
        long asked = System.nanoTime();
        player.play(mixer, at, Range.once(0, length));
        while (player.soundingFrame() < at) {
          Thread.onSpinWait();
        }
        if (i >= 0) {
          millis[i] = (System.nanoTime() - asked) / 1e6;
        }
        Thread.sleep(500);
        mixer = Mixer.of(project.withMasterDb(-random.nextInt(6)), store);
        player.replace(mixer, Range.once(0, length));
        Thread.sleep(480);
      }
      long allocated = threads.getThreadAllocatedBytes(thread) - before;
      Arrays.sort(millis);
      System.out.printf(
          "under-runs %d, %d bytes allocated while rendering; seek to first sample: median %.1f ms,"
              + " p99 %.1f, worst %.1f%n",
          player.underRuns(),
          allocated,
          millis[SECONDS / 2],
          millis[SECONDS * 99 / 100],
          millis[SECONDS - 1]);
    }
  }
}

package hushrise.bench;

import hushrise.core.edit.History;
import hushrise.core.journal.Journal;
import hushrise.core.journal.Journals;
import hushrise.core.journal.Recovered;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * What noting a step costs whoever makes it, how soon it lies on the disk, and how long it takes to
 * give 500 of them back: on the film of two hours with twelve tracks and 5 000 keyframes.
 */
public final class JournalBenchmark {

  private static final int STEPS = 500;
  private static final int WARM = 50;

  private JournalBenchmark() {}

  public static void main(String[] args) throws IOException {
    Path folder = Scratch.folder();
    Project project =
        LongProject.of(new MediaStore(new CacheFolder(folder.resolve("cache"), 4L << 30)), folder);
    long[] noted = new long[STEPS];
    long[] kept = new long[STEPS];
    Path copies = Files.createDirectories(folder.resolve("left"));
    try (Journal journal = new Journal(folder.resolve("journals"), System.err::println)) {
      History history = new History(project);
      journal.opened(project, Optional.empty());
      long[] begun = new long[1];
      history.setListener(
          (event, name, now) -> {
            begun[0] = System.nanoTime();
            journal.happened(event, name, now);
            begun[0] = System.nanoTime() - begun[0];
          });
      for (int i = -WARM; i < STEPS; i++) {
        Track track = project.tracks().get(Math.floorMod(i, project.tracks().size()));
        double db = -Math.floorMod(i, 97) / 10.0 - i / 1e6;
        long from = System.nanoTime();
        history.commit("Level", history.present().withTrack(track.id(), t -> t.withLevelDb(db)));
        journal.flush(10_000);
        if (i >= 0) {
          noted[i] = begun[0];
          kept[i] = System.nanoTime() - from;
        }
      }
      try (Stream<Path> all = Files.list(folder.resolve("journals"))) {
        for (Path file : all.toList()) {
          Files.copy(file, copies.resolve(file.getFileName()));
        }
      }
    }
    long from = System.nanoTime();
    Recovered recovered = new Journals(copies).left().getFirst();
    double seconds = (System.nanoTime() - from) / 1e9;
    System.out.printf(
        "noting a step: median %.4f ms, p99 %.4f ms; on the disk after: median %.1f ms, p99 %.1f ms%n",
        at(noted, 0.5), at(noted, 0.99), at(kept, 0.5), at(kept, 0.99));
    System.out.printf(
        "%d steps given back in %.2f s from %d KB%n",
        recovered.steps(), seconds, Files.size(recovered.journal()) >> 10);
  }

  private static double at(long[] nanos, double part) {
    long[] sorted = nanos.clone();
    Arrays.sort(sorted);
    return sorted[(int) Math.min(sorted.length - 1L, Math.round(part * sorted.length))] / 1e6;
  }
}

package hushrise.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;

/** What a program holds, after everything has been collected. */
record Held(long heapKib, int threads, int files, int mapped, long mappedMib, long nativeMib) {

  /**
   * One of them over a day.
   *
   * @param allowed how many times as much the end may hold
   */
  private record Figure(String name, double allowed, ToDoubleFunction<Held> of) {}

  private static final List<Figure> FIGURES =
      List.of(
          new Figure("heap MiB", 1.15, h -> h.heapKib() / 1024.0),
          new Figure("threads", 1.1, Held::threads),
          new Figure("open files", 1.1, Held::files),
          new Figure("mapped files", 1.25, Held::mapped),
          new Figure("native MiB", 1.2, Held::nativeMib));

  static Held now() throws IOException {
    for (int i = 0; i < 3; i++) {
      System.gc();
    }
    Runtime runtime = Runtime.getRuntime();
    List<String> maps;
    try (Stream<String> lines = Files.lines(Path.of("/proc/self/maps"))) {
      maps =
          lines
              .filter(l -> l.endsWith(".sound") || l.endsWith(".peaks") || l.endsWith(".wav"))
              .toList();
    }
    long bytes = 0;
    for (String map : maps) {
      String[] ends = map.split(" ", 2)[0].split("-");
      bytes += Long.parseUnsignedLong(ends[1], 16) - Long.parseUnsignedLong(ends[0], 16);
    }
    long anonymousKib =
        Files.readAllLines(Path.of("/proc/self/status")).stream()
            .filter(l -> l.startsWith("RssAnon"))
            .mapToLong(l -> Long.parseLong(l.replaceAll("\\D", "")))
            .sum();
    return new Held(
        (runtime.totalMemory() - runtime.freeMemory()) >> 10,
        count("/proc/self/task"),
        count("/proc/self/fd"),
        maps.size(),
        bytes >> 20,
        (anonymousKib >> 10) - (runtime.totalMemory() >> 20));
  }

  private static int count(String folder) throws IOException {
    try (Stream<Path> all = Files.list(Path.of(folder))) {
      return (int) all.count();
    }
  }

  String words() {
    return "heap %6.1f MiB, %3d threads, %3d open files, %3d mapped (%4d MiB), native %4d MiB"
        .formatted(heapKib / 1024.0, threads, files, mapped, mappedMib, nativeMib);
  }

  /** Tells whether the last quarter holds more than the second; the first is for warming up. */
  static boolean grew(List<Held> held) {
    int quarter = Math.max(1, held.size() / 4);
    List<Held> early =
        held.subList(Math.min(quarter, held.size() - 1), Math.min(2 * quarter, held.size()));
    List<Held> late = held.subList(held.size() - quarter, held.size());
    boolean grew = false;
    for (Figure figure : FIGURES) {
      double before = early.stream().mapToDouble(figure.of()).average().orElse(0);
      double after = late.stream().mapToDouble(figure.of()).average().orElse(0);
      boolean more = after > before * figure.allowed() + 2;
      grew |= more;
      System.out.printf(
          "%-12s %8.1f in the second quarter, %8.1f in the last%s%n",
          figure.name(), before, after, more ? ": it grew" : "");
    }
    return grew;
  }
}

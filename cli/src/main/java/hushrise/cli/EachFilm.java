package hushrise.cli;

import hushrise.core.Problem;
import hushrise.core.report.Report;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import picocli.CommandLine;

/**
 * Makes each film of a folder, several at a time. A film's narration is what lies beside it and
 * begins with its name: {@code lesson-3.mp4} takes {@code lesson-3.wav}, or {@code lesson-3 a.flac}
 * and {@code lesson-3 b.flac}. One that fails keeps none of the others from being made.
 */
final class EachFilm {

  private static final Set<String> FILMS = Set.of("mp4", "mov", "mkv", "webm", "avi", "m4v");
  private static final Set<String> SOUNDS =
      Set.of("wav", "flac", "mp3", "m4a", "ogg", "opus", "aiff", "aif", "aac");

  private final Path folder;
  private final DeliveryOptions delivery;
  private final boolean json;
  private final CommandLine line;

  /** Makes one film. */
  @FunctionalInterface
  interface Maker {
    MakeCommand.Made make(Path film, List<PlacedFile> voices, Path output);
  }

  EachFilm(Path folder, DeliveryOptions delivery, boolean json, CommandLine line) {
    this.folder = folder;
    this.delivery = delivery;
    this.json = json;
    this.line = line;
  }

  /**
   * Makes them all.
   *
   * @return the exit code: 1 when any of them failed
   */
  int make(Maker maker) {
    Map<Path, List<PlacedFile>> pairs = pairs();
    if (pairs.isEmpty()) {
      throw new Problem("There is no film in %s: choose the folder they lie in.".formatted(folder));
    }
    Path target = madeFolder();
    int failed = 0;
    ExecutorService workers =
        Executors.newFixedThreadPool(
            Runtime.getRuntime().availableProcessors(),
            Thread.ofPlatform().daemon().name("hushrise-each-", 0).factory());
    try {
      Map<Path, Future<MakeCommand.Made>> made = new LinkedHashMap<>();
      pairs.forEach(
          (film, voices) -> {
            Path output = target.resolve(bare(film) + "." + delivery.endingFor(film));
            made.put(film, workers.submit(() -> maker.make(film, voices, output)));
          });
      for (Map.Entry<Path, Future<MakeCommand.Made>> film : made.entrySet()) {
        failed += tell(film.getKey(), film.getValue()) ? 0 : 1;
      }
    } finally {
      workers.shutdownNow();
    }
    return failed == 0 ? 0 : 1;
  }

  /** Tells what became of a film; whether it was made. */
  private boolean tell(Path film, Future<MakeCommand.Made> future) {
    PrintWriter out = line.getOut();
    try {
      MakeCommand.Made made = future.get();
      if (made.deliveries().failures().isEmpty() && made.report().isPresent()) {
        out.println(json ? made.report().get().json() : made.report().get().text());
        return true;
      }
      failed(film, made.deliveries().failures().getFirst());
    } catch (ExecutionException e) {
      failed(film, e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      failed(film, e);
    }
    return false;
  }

  private void failed(Path film, Throwable failure) {
    String words =
        failure instanceof Problem
            ? failure.getMessage()
            : "%s could not be made: %s".formatted(film, failure.getMessage());
    if (json) {
      line.getOut()
          .println(new Report().put("picture", film.toString()).put("error", words).json());
    }
    line.getErr().println(words);
  }

  private Path madeFolder() {
    Path target = delivery.outputs().getFirst();
    try {
      return Files.createDirectories(target);
    } catch (IOException e) {
      throw new Problem(
          "The folder %s cannot be made: choose another for the films.".formatted(target), e);
    }
  }

  /** Each film with its narration, both in the order of their names. */
  private Map<Path, List<PlacedFile>> pairs() {
    List<Path> files;
    try (Stream<Path> all = Files.list(folder)) {
      files = all.filter(Files::isRegularFile).sorted().toList();
    } catch (IOException e) {
      throw new Problem("There is no folder %s: check its name.".formatted(folder), e);
    }
    List<Path> films = files.stream().filter(f -> FILMS.contains(ending(f))).toList();
    Map<Path, List<PlacedFile>> pairs = new LinkedHashMap<>();
    films.forEach(f -> pairs.put(f, new ArrayList<>()));
    for (Path sound : files) {
      if (SOUNDS.contains(ending(sound))) {
        // of films whose names both begin it, the longer name is meant
        films.stream()
            .filter(f -> belongs(bare(sound), bare(f)))
            .max(Comparator.comparingInt(f -> bare(f).length()))
            .ifPresent(f -> pairs.get(f).add(new PlacedFile(sound, OptionalDouble.empty())));
      }
    }
    return pairs;
  }

  /**
   * Whether a name is a film's own, alone or with something after it that is no letter or digit.
   */
  private static boolean belongs(String sound, String film) {
    String name = sound.toLowerCase(Locale.ROOT);
    String begin = film.toLowerCase(Locale.ROOT);
    return name.equals(begin)
        || (name.startsWith(begin) && !Character.isLetterOrDigit(name.charAt(begin.length())));
  }

  private static String ending(Path file) {
    String name = file.getFileName().toString();
    return name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
  }

  private static String bare(Path file) {
    String name = file.getFileName().toString();
    int dot = name.lastIndexOf('.');
    return dot > 0 ? name.substring(0, dot) : name;
  }
}

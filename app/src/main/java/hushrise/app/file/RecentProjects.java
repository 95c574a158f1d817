package hushrise.app.file;

import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.prefs.Preferences;
import java.util.stream.IntStream;

/** The projects that were opened or saved last, the latest first. */
public final class RecentProjects {

  private static final int MOST = 6;
  private static final int MOST_SECONDS = 2;
  private static final String KEY = "recent.";

  private final Preferences preferences = Preferences.userNodeForPackage(RecentProjects.class);

  /**
   * Those that are still there, as far as that can be told in two seconds: a place in the network
   * may be away. Not on the window's thread.
   */
  public List<Path> all() {
    List<Path> noted = noted();
    ExecutorService askers =
        Executors.newFixedThreadPool(
            MOST, Thread.ofPlatform().daemon().name("hushrise-recent-", 0).factory());
    try {
      List<Callable<Boolean>> questions = new ArrayList<>();
      noted.forEach(path -> questions.add(() -> Files.isRegularFile(path)));
      List<Future<Boolean>> answers = askers.invokeAll(questions, MOST_SECONDS, TimeUnit.SECONDS);
      return IntStream.range(0, noted.size())
          .filter(i -> answers.get(i).state() == Future.State.SUCCESS && answers.get(i).resultNow())
          .mapToObj(noted::get)
          .toList();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return List.of();
    } finally {
      askers.shutdown();
    }
  }

  private List<Path> noted() {
    List<Path> paths = new ArrayList<>();
    for (int i = 0; i < MOST; i++) {
      String path = preferences.get(KEY + i, "");
      try {
        if (!path.isEmpty()) {
          paths.add(Path.of(path));
        }
      } catch (InvalidPathException e) {
        preferences.remove(KEY + i);
      }
    }
    return paths;
  }

  /** Notes a project as the latest. */
  public void note(Path project) {
    Path absolute = project.toAbsolutePath().normalize();
    List<Path> paths = noted();
    paths.remove(absolute);
    paths.addFirst(absolute);
    for (int i = 0; i < MOST; i++) {
      preferences.put(KEY + i, i < paths.size() ? paths.get(i).toString() : "");
    }
  }
}

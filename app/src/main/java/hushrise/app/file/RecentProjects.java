package hushrise.app.file;

import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.prefs.Preferences;

/** The projects that were opened or saved last, the latest first. */
public final class RecentProjects {

  private static final int MOST = 6;
  private static final String KEY = "recent.";

  private final Preferences preferences = Preferences.userNodeForPackage(RecentProjects.class);

  /** Those that are still there. */
  public List<Path> all() {
    return noted().stream().filter(Files::isRegularFile).toList();
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

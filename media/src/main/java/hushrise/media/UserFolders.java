package hushrise.media;

import dev.dirs.ProjectDirectories;
import java.nio.file.Path;

/**
 * Where things of the person lie. HUSHRISE_CACHE and HUSHRISE_SETTINGS name other folders for what
 * can be made again, and for all else.
 */
public final class UserFolders {

  private UserFolders() {}

  /** Decoded sounds and other things that can be made again. */
  public static Path cache() {
    return named("HUSHRISE_CACHE", "", directories().cacheDir);
  }

  /**
   * FFmpeg's libraries and those of the speech model's runtime as they are loaded, taken out of the
   * program. They are the same wherever HUSHRISE_CACHE puts the sounds.
   */
  static Path libraries() {
    return Path.of(directories().cacheDir, "libraries");
  }

  /** What the person has set. */
  public static Path settings() {
    return named("HUSHRISE_SETTINGS", "", directories().configDir);
  }

  /** Journals, earlier versions and the log. */
  public static Path work() {
    return named("HUSHRISE_SETTINGS", "work", directories().dataLocalDir);
  }

  private static Path named(String variable, String within, String usual) {
    String named = System.getenv(variable);
    return named == null || named.isBlank() ? Path.of(usual) : Path.of(named).resolve(within);
  }

  private static ProjectDirectories directories() {
    return ProjectDirectories.from("", "", "Hush Rise");
  }
}

package hushrise.app.window;

import java.util.List;
import java.util.Optional;

/**
 * What the window was started with.
 *
 * @param project a project to open
 * @param shot a file for one picture of the window
 * @param shots a folder for the pictures of the documentation
 * @param theme the theme's name
 * @param trial whether it is used once by itself, for Java to learn from
 */
record Arguments(
    Optional<String> project,
    Optional<String> shot,
    Optional<String> shots,
    Optional<String> theme,
    boolean trial) {

  static Arguments of(List<String> raw) {
    Optional<String> project =
        raw.isEmpty() || raw.getFirst().startsWith("--")
            ? Optional.empty()
            : Optional.of(raw.getFirst());
    return new Arguments(
        project,
        after(raw, "--shot"),
        after(raw, "--shots"),
        after(raw, "--theme"),
        raw.contains("--trial"));
  }

  /** Whether it was started with nobody before it. */
  boolean isUnattended() {
    return trial || shot.isPresent() || shots.isPresent();
  }

  private static Optional<String> after(List<String> raw, String option) {
    int at = raw.indexOf(option);
    return at >= 0 && at + 1 < raw.size() ? Optional.of(raw.get(at + 1)) : Optional.empty();
  }
}

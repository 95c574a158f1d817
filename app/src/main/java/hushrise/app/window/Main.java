package hushrise.app.window;

import java.util.List;
import java.util.Locale;
import javafx.application.Application;

/**
 * Starts the window. A class of its own, as one that extends Application cannot be started plainly.
 */
public final class Main {

  private Main() {}

  /**
   * Starts the window.
   *
   * @param args {@code [PROJECT] [--shot FILE.png] [--shots FOLDER] [--theme quay|lantern]
   *     [--trial]}
   */
  public static void main(String[] args) {
    Locale.setDefault(Locale.Category.FORMAT, Locale.ROOT);
    if (isWithoutDisplay()) {
      if (!Arguments.of(List.of(args)).isUnattended()) {
        System.err.println(
            "There is no display here to open a window on: start Hush Rise from a desktop, or use the command line, hushrise.");
        System.exit(1);
      }
      System.setProperty("glass.platform", "Headless");
      System.setProperty("prism.order", "sw");
    }
    Application.launch(HushRiseApp.class, args);
  }

  /** Whether windows could be shown nowhere, and nobody has asked for them to be shown nowhere. */
  private static boolean isWithoutDisplay() {
    return System.getProperty("os.name").equals("Linux")
        && System.getProperty("glass.platform") == null
        && System.getenv("DISPLAY") == null
        && System.getenv("WAYLAND_DISPLAY") == null;
  }
}

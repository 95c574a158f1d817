package hushrise.app.window;

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
   * @param args {@code [PROJECT] [--shot FILE.png] [--shots FOLDER] [--theme quay|lantern]}
   */
  public static void main(String[] args) {
    Locale.setDefault(Locale.Category.FORMAT, Locale.ROOT);
    Application.launch(HushRiseApp.class, args);
  }
}

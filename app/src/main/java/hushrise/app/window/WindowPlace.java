package hushrise.app.window;

import java.util.Comparator;
import java.util.List;
import java.util.prefs.Preferences;
import javafx.geometry.Rectangle2D;
import javafx.stage.Screen;
import javafx.stage.Stage;

/**
 * Where the window stood, how large it was and how high the row under the timeline, for the next
 * time. A window never stands where no screen is, nor is it larger than the screen.
 */
final class WindowPlace {

  private static final String X = "window.x";
  private static final String Y = "window.y";
  private static final String WIDTH = "window.width";
  private static final String HEIGHT = "window.height";
  private static final String MAXIMIZED = "window.maximized";
  private static final String BOTTOM = "window.bottom";

  private final Preferences preferences;
  private final Stage stage;
  private final Window window;

  WindowPlace(Preferences preferences, Stage stage, Window window) {
    this.preferences = preferences;
    this.stage = stage;
    this.window = window;
  }

  /**
   * Gives the window its place back; the first time it is as large as given, as far as the screen
   * is.
   */
  void restore(double usualWidth, double usualHeight) {
    window.bottomHeightProperty().set(preferences.getDouble(BOTTOM, 0));
    double width = preferences.getDouble(WIDTH, 0);
    double height = preferences.getDouble(HEIGHT, 0);
    List<Rectangle2D> screens = Screen.getScreens().stream().map(Screen::getVisualBounds).toList();
    if (width > 0 && height > 0) {
      Rectangle2D had =
          new Rectangle2D(preferences.getDouble(X, 0), preferences.getDouble(Y, 0), width, height);
      put(fitting(had, screens));
    } else {
      Rectangle2D first = Screen.getPrimary().getVisualBounds();
      if (first.getWidth() < usualWidth || first.getHeight() < usualHeight) {
        put(
            fitting(
                new Rectangle2D(first.getMinX(), first.getMinY(), usualWidth, usualHeight),
                screens));
      }
    }
    stage.setMaximized(preferences.getBoolean(MAXIMIZED, false));
  }

  private void put(Rectangle2D place) {
    stage.setX(place.getMinX());
    stage.setY(place.getMinY());
    stage.setWidth(place.getWidth());
    stage.setHeight(place.getHeight());
  }

  /**
   * Notes where it stands. Of a window that fills the screen, or was put away, the place before
   * that is kept.
   */
  void keep() {
    preferences.putBoolean(MAXIMIZED, stage.isMaximized());
    preferences.putDouble(BOTTOM, window.bottomHeightProperty().get());
    boolean stands = !stage.isMaximized() && !stage.isIconified() && !stage.isFullScreen();
    if (stands && stage.getWidth() > 0) {
      preferences.putDouble(X, stage.getX());
      preferences.putDouble(Y, stage.getY());
      preferences.putDouble(WIDTH, stage.getWidth());
      preferences.putDouble(HEIGHT, stage.getHeight());
    }
  }

  /**
   * The place nearest to one that lies on a screen: on the one that shows most of it, else on the
   * first.
   *
   * @param screens what of them windows may use; at least one
   */
  static Rectangle2D fitting(Rectangle2D wanted, List<Rectangle2D> screens) {
    Rectangle2D screen =
        screens.stream()
            .max(Comparator.comparingDouble(s -> common(wanted, s)))
            .filter(s -> common(wanted, s) > 0)
            .orElse(screens.getFirst());
    double width = Math.min(wanted.getWidth(), screen.getWidth());
    double height = Math.min(wanted.getHeight(), screen.getHeight());
    return new Rectangle2D(
        Math.clamp(wanted.getMinX(), screen.getMinX(), screen.getMaxX() - width),
        Math.clamp(wanted.getMinY(), screen.getMinY(), screen.getMaxY() - height),
        width,
        height);
  }

  /** How much two rectangles have in common. */
  private static double common(Rectangle2D a, Rectangle2D b) {
    double wide = Math.min(a.getMaxX(), b.getMaxX()) - Math.max(a.getMinX(), b.getMinX());
    double high = Math.min(a.getMaxY(), b.getMaxY()) - Math.max(a.getMinY(), b.getMinY());
    return Math.max(0, wide) * Math.max(0, high);
  }
}

package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.look.Theme;
import hushrise.media.CacheFolder;
import hushrise.media.SystemDevices;
import hushrise.media.UserFolders;
import java.nio.file.Path;
import java.util.Locale;
import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.image.Image;
import javafx.stage.Stage;

/** The application: reads its arguments, puts the window on its stage, or takes pictures of it. */
public final class HushRiseApp extends Application {

  private static final double WIDTH = 1280;
  private static final double HEIGHT = 800;

  private Window window;

  @Override
  public void start(Stage stage) {
    Arguments arguments = Arguments.of(getParameters().getRaw());
    Theme.loadFonts();
    Theme theme =
        arguments
            .theme()
            .map(t -> Theme.valueOf(t.toUpperCase(Locale.ROOT)))
            .orElseGet(Theme::chosen);
    window =
        new Window(
            CacheFolder.ofUser(),
            new SystemDevices(),
            theme,
            new SystemFileChoice(() -> stage),
            UserFolders.work());
    Scene scene = new Scene(window.root(), WIDTH, HEIGHT);
    window.attach(stage, scene);
    stage.getIcons().add(new Image(icon()));
    stage.setMinWidth(860);
    stage.setMinHeight(560);
    stage.setScene(scene);
    stage.show();
    window.focusTimeline();
    arguments.project().map(Path::of).ifPresent(window::open);
    arguments.shot().ifPresent(file -> new Pictures(window).takeOne(Path.of(file)));
    arguments.shots().ifPresent(folder -> new Pictures(window).takeAll(Path.of(folder)));
    if (arguments.project().isEmpty()) {
      window.say(text("welcome"));
    }
    if (!arguments.takesPictures()) {
      window.keepLog();
      window.offerWhatWasLeft();
    }
  }

  private static String icon() {
    return HushRiseApp.class.getResource("/hushrise/app/icon.png").toExternalForm();
  }

  @Override
  public void stop() {
    window.close();
  }
}

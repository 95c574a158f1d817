package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.look.Theme;
import hushrise.media.CacheFolder;
import hushrise.media.FirstLook;
import hushrise.media.StandInDevices;
import hushrise.media.SystemDevices;
import hushrise.media.UserFolders;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.Locale;
import java.util.Optional;
import java.util.prefs.Preferences;
import java.util.stream.Stream;
import javafx.animation.PauseTransition;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.image.Image;
import javafx.stage.Stage;
import javafx.util.Duration;
import org.slf4j.LoggerFactory;

/** The application: reads its arguments, puts the window on its stage, or takes pictures of it. */
public final class HushRiseApp extends Application {

  private static final double WIDTH = 1280;
  private static final double HEIGHT = 800;

  private Window window;
  private FirstLook firstLook;
  private Optional<WindowPlace> place = Optional.empty();
  private Optional<Remembered> remembered = Optional.empty();

  @Override
  public void start(Stage stage) {
    Arguments arguments = Arguments.of(getParameters().getRaw());
    Theme.loadFonts();
    Theme theme =
        arguments
            .theme()
            .map(t -> Theme.valueOf(t.toUpperCase(Locale.ROOT)))
            .orElseGet(Theme::chosen);
    CacheFolder cache = CacheFolder.ofUser();
    firstLook = FirstLook.inForce(() -> cache);
    window =
        new Window(
            cache,
            arguments.isUnattended() ? new StandInDevices() : new SystemDevices(),
            theme,
            new SystemFileChoice(() -> stage),
            arguments.isUnattended() ? passing() : UserFolders.work());
    Scene scene = new Scene(window.root(), WIDTH, HEIGHT);
    window.attach(stage, scene);
    stage.getIcons().add(new Image(icon()));
    stage.setMinWidth(960);
    stage.setMinHeight(560);
    stage.setScene(scene);
    if (!arguments.isUnattended()) {
      Preferences preferences = Preferences.userNodeForPackage(WindowPlace.class);
      place = Optional.of(new WindowPlace(preferences, stage, window));
      place.get().restore(WIDTH, HEIGHT);
      remembered = Optional.of(window.remembered(preferences));
      remembered.get().restore();
    }
    stage.show();
    window.focusTimeline();
    arguments.project().map(Path::of).ifPresent(window::open);
    arguments.shot().ifPresent(file -> new Pictures(window).takeOne(Path.of(file)));
    arguments.shots().ifPresent(folder -> new Pictures(window).takeAll(Path.of(folder)));
    if (arguments.trial()) {
      new TrialRun(window, Platform::exit).begin();
    }
    if (arguments.project().isEmpty()) {
      window.say(text("welcome"));
    }
    if (!arguments.isUnattended()) {
      window.keepLog();
      window.offerWhatWasLeft();
      lookAhead();
    }
  }

  /** Once the window stands, what looks at files is started, so that the first need not wait. */
  private void lookAhead() {
    PauseTransition later = new PauseTransition(Duration.seconds(3));
    later.setOnFinished(
        e -> Thread.ofPlatform().daemon().name("hushrise-ahead").start(firstLook::startAhead));
    later.play();
  }

  /** A folder for what is kept while nobody is there, which is not the person's own work. */
  private static Path passing() {
    try {
      Path folder = Files.createTempDirectory("hush-rise-unattended");
      Runtime.getRuntime().addShutdownHook(new Thread(() -> remove(folder)));
      return folder;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void remove(Path folder) {
    try (Stream<Path> all = Files.walk(folder)) {
      all.sorted(Comparator.reverseOrder()).forEach(path -> path.toFile().delete());
    } catch (IOException e) {
      LoggerFactory.getLogger(HushRiseApp.class).debug("{} is left", folder, e);
    }
  }

  private static String icon() {
    return HushRiseApp.class.getResource("/hushrise/app/icon.png").toExternalForm();
  }

  @Override
  public void stop() {
    place.ifPresent(WindowPlace::keep);
    remembered.ifPresent(Remembered::keep);
    window.close();
    firstLook.close();
  }
}

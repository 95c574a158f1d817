package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.look.Pixels;
import hushrise.app.look.Theme;
import hushrise.app.timeline.LevelScale;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Devices;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import hushrise.media.SystemDevices;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import javafx.event.EventType;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** A real window on the demo's files, driven by mouse and keys on the headless platform. */
@ExtendWith(NothingWentWrong.class)
abstract class WindowTestCase {

  /** Marks tests that hardly ask anything of the display: they do not run on one again. */
  static final String ANY_PLATFORM = "any-platform";

  static final int RATE = 48_000;
  private static final Path DEMO = Path.of("../demo/data");
  private static final Path CACHE = Path.of("target/test-cache/window");

  /** Other work on the machine may leave it next to nothing for a minute at a time. */
  private static final int PATIENCE_SECONDS = 150;

  /** Keys that go to a window of the system never arrive in ours. */
  private static final long KEYS_ARRIVE_NANOS = 1_000_000_000;

  private final AtomicInteger released = new AtomicInteger();
  @TempDir Path folder;
  final QuickRobot robot = new QuickRobot();
  final ChosenFiles chosen = new ChosenFiles();
  Window window;
  MediaStore store;

  @BeforeEach
  void start() throws IOException, TimeoutException {
    copyDemo();
    FxToolkit.toolkitContext().setSetupTimeoutInMillis(PATIENCE_SECONDS * 1000L);
    FxToolkit.registerPrimaryStage();
    FxToolkit.setupStage(this::show);
    until("the window has the keys", () -> window.root().getScene().getWindow().isFocused());
  }

  void show(Stage stage) {
    Theme.loadFonts();
    CacheFolder cache = new CacheFolder(CACHE, 1L << 30);
    store = new MediaStore(cache);
    window = new Window(cache, devices(), Theme.QUAY, chosen, folder.resolve("work"));
    Scene scene = new Scene(window.root(), 1280, 800);
    window.attach(stage, scene);
    stage.setScene(scene);
    stage.sizeToScene();
    scene.addEventFilter(KeyEvent.KEY_RELEASED, e -> released.incrementAndGet());
    scene.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> robot.released());
    stage.show();
    window.focusTimeline();
    if (opensDemo()) {
      window.open(folder.resolve("first-ferry.hushrise"));
    }
  }

  /** What sound goes through: here the stand-ins. */
  Devices devices() {
    return new SystemDevices();
  }

  /** Whether the window starts with the demo; else it is empty. */
  boolean opensDemo() {
    return true;
  }

  private void copyDemo() throws IOException {
    try (Stream<Path> files = Files.list(DEMO)) {
      for (Path file : files.toList()) {
        Files.copy(file, folder.resolve(file.getFileName()));
      }
    }
  }

  @AfterEach
  void close() throws TimeoutException {
    robot.interact(() -> window.close());
    FxToolkit.cleanupStages();
  }

  /** Waits for a condition on the window's thread; fails when it does not come. */
  void until(String what, Callable<Boolean> condition) {
    try {
      WaitForAsyncUtils.waitFor(
          PATIENCE_SECONDS, TimeUnit.SECONDS, () -> WaitForAsyncUtils.asyncFx(condition).get());
    } catch (TimeoutException e) {
      throw new AssertionError("Waited in vain until " + what + "; the status is: " + status(), e);
    }
    QuickRobot.settle();
  }

  void untilQuiet() {
    until("nothing is under way", () -> !window.isBusy());
  }

  void untilOpen() {
    until("the demo is open", () -> window.session().shown().lengthFrames() > 0);
    untilQuiet();
  }

  Project project() {
    return window.session().shown();
  }

  Track music() {
    return project().firstTrack(TrackKind.MUSIC).orElseThrow();
  }

  List<Keyframe> keyframes() {
    return music().line().keyframes();
  }

  String status() {
    return ((Labeled) robot.lookup("#status").query()).getText();
  }

  @SuppressWarnings("TypeParameterUnusedInFormals") // as the robot's own query
  <N extends Node> N find(String id) {
    return robot.lookup("#" + id).query();
  }

  /** What a part of the window looks like, row by row. */
  int[] pictureOf(Node node) {
    int[][] pixels = new int[1][];
    robot.interact(() -> pixels[0] = Pixels.of(node.snapshot(null, null)));
    return pixels[0];
  }

  /** A place on the music lane on the screen. */
  Point2D on(double seconds, double db) {
    return on("lane-music", seconds, db);
  }

  Point2D on(String lane, double seconds, double db) {
    Node node = find(lane);
    Bounds bounds = node.localToScreen(node.getBoundsInLocal());
    double x = window.view().axis().xOf(seconds * RATE);
    double y = new LevelScale(bounds.getHeight()).yOf(db);
    return new Point2D(bounds.getMinX() + x, bounds.getMinY() + y);
  }

  /** Presses keys together and waits until they have arrived, which on a display takes a while. */
  void press(KeyCode... keys) {
    int arrived = released.get() + keys.length;
    robot.push(keys);
    long end = System.nanoTime() + KEYS_ARRIVE_NANOS;
    while (released.get() < arrived && System.nanoTime() < end) {
      WaitForAsyncUtils.sleep(2, TimeUnit.MILLISECONDS);
    }
    QuickRobot.settle();
  }

  /**
   * Presses and releases on the music's lane with Ctrl held. The event is made here, as the
   * headless platform's robot does not carry held keys into pointer events.
   */
  void ctrlClick(double seconds, double db) {
    click(find("lane-music"), on(seconds, db), 1, true);
  }

  /** Clicks twice on the music's lane. */
  void doubleClick(double seconds, double db) {
    doubleClick(find("lane-music"), on(seconds, db));
  }

  /** Clicks twice; made here, as a busy machine's robot may be too slow. */
  void doubleClick(Node node, Point2D at) {
    click(node, at, 1, false);
    click(node, at, 2, false);
  }

  private void click(Node node, Point2D at, int count, boolean ctrl) {
    robot.interact(
        () -> {
          Point2D inScene = window.root().screenToLocal(at);
          for (EventType<MouseEvent> type :
              List.of(MouseEvent.MOUSE_PRESSED, MouseEvent.MOUSE_RELEASED)) {
            node.fireEvent(
                new MouseEvent(
                    type,
                    inScene.getX(),
                    inScene.getY(),
                    at.getX(),
                    at.getY(),
                    MouseButton.PRIMARY,
                    count,
                    false,
                    ctrl,
                    false,
                    false,
                    type == MouseEvent.MOUSE_PRESSED,
                    false,
                    false,
                    false,
                    false,
                    true,
                    null));
          }
        });
    QuickRobot.settle();
  }

  /** Keys that are held while the mouse is used. */
  enum Held {
    NOTHING,
    SHIFT,
    CTRL,
    ALT
  }

  /**
   * Drags on a node with a key held or with none, in three steps. The events are made here, as the
   * headless platform's robot does not carry held keys into pointer events.
   */
  void dragHolding(Held key, String nodeId, Point2D from, Point2D to) {
    dragHolding(key, nodeId, from, to, () -> {});
  }

  /** The same, with something done half-way. */
  void dragHolding(Held key, String nodeId, Point2D from, Point2D to, Runnable halfway) {
    Node node = find(nodeId);
    fire(node, MouseEvent.MOUSE_PRESSED, from, key, true);
    fire(node, MouseEvent.MOUSE_DRAGGED, from.midpoint(to), key, false);
    halfway.run();
    fire(node, MouseEvent.MOUSE_DRAGGED, to, key, false);
    fire(node, MouseEvent.MOUSE_RELEASED, to, key, from.equals(to));
    QuickRobot.settle();
  }

  private void fire(Node node, EventType<MouseEvent> type, Point2D at, Held key, boolean still) {
    robot.interact(
        () -> {
          Point2D inScene = window.root().screenToLocal(at); // the node may have gone
          node.fireEvent(
              new MouseEvent(
                  type,
                  inScene.getX(),
                  inScene.getY(),
                  at.getX(),
                  at.getY(),
                  MouseButton.PRIMARY,
                  1,
                  key == Held.SHIFT,
                  key == Held.CTRL,
                  key == Held.ALT,
                  false,
                  type != MouseEvent.MOUSE_RELEASED,
                  false,
                  false,
                  false,
                  false,
                  still,
                  null));
        });
  }

  /** Turns the wheel over the music's lane with Ctrl held; made here for the same reason. */
  void ctrlWheel(double seconds, double turn) {
    Point2D at = on(seconds, -30);
    Node lane = find("lane-music");
    robot.interact(
        () -> {
          Point2D inScene = lane.localToScene(lane.screenToLocal(at));
          lane.fireEvent(
              new ScrollEvent(
                  ScrollEvent.SCROLL,
                  inScene.getX(),
                  inScene.getY(),
                  at.getX(),
                  at.getY(),
                  false,
                  true,
                  false,
                  false,
                  false,
                  false,
                  0,
                  turn,
                  0,
                  turn,
                  ScrollEvent.HorizontalTextScrollUnits.NONE,
                  0,
                  ScrollEvent.VerticalTextScrollUnits.NONE,
                  0,
                  0,
                  null));
        });
  }

  /** Opens the export sheet, chooses a format and a file there, and starts. */
  void export(OutputFormat format, Path to) {
    robot.clickOn("#export");
    ComboBox<OutputFormat> formats = find("export-format");
    robot.interact(() -> formats.setValue(format));
    chosen.next(to);
    robot.clickOn("#export-choose");
    robot.clickOn("#export-start");
    QuickRobot.settle();
  }

  void drag(Point2D from, Point2D to) {
    robot.moveTo(from);
    QuickRobot.settle();
    robot.press(MouseButton.PRIMARY);
    QuickRobot.settle();
    robot.moveTo(to);
    QuickRobot.settle();
    robot.release(MouseButton.PRIMARY);
    QuickRobot.settle();
  }

  /** Types into a field as a person does: press it, select all, type, Enter. */
  void type(String fieldId, String words) {
    TextField field = find(fieldId);
    robot.clickOn(field).push(KeyCode.CONTROL, KeyCode.A).write(words).push(KeyCode.ENTER);
    QuickRobot.settle();
  }

  /** Waits for a question and presses the answer with these words. */
  void answer(String words) {
    until("the sheet asks", () -> window.root().lookup("#sheet").isVisible());
    robot.interact(
        () ->
            window.root().lookup("#sheet").lookupAll(".button").stream()
                .map(ButtonBase.class::cast)
                .filter(b -> b.getText().equals(words))
                .findFirst()
                .orElseThrow()
                .fire());
  }

  static void assertClose(double actual, double expected, double within) {
    assertThat(actual).isBetween(expected - within, expected + within);
  }
}

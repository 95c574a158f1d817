package hushrise.bench;

import hushrise.app.file.FileChoice;
import hushrise.app.look.Theme;
import hushrise.app.timeline.LevelScale;
import hushrise.app.window.Pointer;
import hushrise.app.window.Quiet;
import hushrise.app.window.Window;
import hushrise.core.project.Project;
import hushrise.core.time.Span;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.SystemDevices;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.stage.Stage;

/**
 * Opens a generated project of two hours, twelve tracks and 5 000 keyframes in the real window,
 * then scrolls, zooms and drags in it, one step a frame, each gesture twice: as somebody does it
 * for the first time, and again. A frame's time is what passes between two pulses: the step, layout
 * and drawing.
 */
public final class WindowBenchmark {

  private static final int RATE = 48_000;
  private static final int STEPS = 240;

  private WindowBenchmark() {}

  /**
   * Runs all gestures, or those that begin with what is asked for.
   *
   * @param args such as {@code whole film}
   */
  public static void main(String[] args) throws IOException {
    Path folder = Scratch.folder();
    View.folder = folder;
    Application.launch(View.class, args);
  }

  /** The window under measurement. */
  public static final class View extends Application {

    private static Path folder;

    private Window window;
    private final List<Part> parts = new ArrayList<>();

    private interface Step {
      void at(int number);
    }

    private record Part(String name, Step step) {}

    @Override
    public void start(Stage stage) throws IOException {
      Theme.loadFonts();
      CacheFolder cache = new CacheFolder(folder.resolve("cache"), 4L << 30);
      Project project = LongProject.of(new MediaStore(cache), folder);
      window =
          new Window(
              cache, new SystemDevices(), Theme.QUAY, FileChoice.NONE, folder.resolve("work"));
      Scene scene = new Scene(window.root(), 1280, 800);
      window.attach(stage, scene);
      stage.setScene(scene);
      stage.show();
      window.session().open(project, Optional.empty());
      window.view().fit();
      parts.add(new Part("scroll", i -> window.view().scroll(i % 80 < 40 ? 25 : -25)));
      parts.add(new Part("zoom", i -> window.view().zoom(i % 60 < 30 ? 1 / 1.1 : 1.1, 400)));
      parts.add(new Part("drag a stretch of line", i -> drag(i, "#lane-music", 500)));
      parts.add(new Part("drag a clip", i -> drag(i, "#lane-voice", 300)));
      parts.add(
          new Part("whole film: zoom", i -> window.view().zoom(i % 60 < 30 ? 1 / 1.1 : 1.1, 400)));
      parts.add(new Part("whole film: drag a line", i -> drag(i, "#lane-music", 500)));
      parts.add(new Part("all meters while playing", this::play));
      parts.add(
          new Part(
              "nothing at all", i -> ((Parent) window.root().lookup("#timeline")).requestLayout()));
      String only = String.join(" ", getParameters().getRaw());
      parts.removeIf(p -> !p.name().startsWith(only));
      whenQuiet(() -> next(0, false));
    }

    private void whenQuiet(Runnable then) {
      Quiet.when(window, 30, then);
    }

    /** Makes a gesture for the first time, and again; then the next one. */
    private void next(int index, boolean again) {
      if (index == parts.size()) {
        System.gc();
        Runtime runtime = Runtime.getRuntime();
        System.out.printf(
            "heap in use %d MiB of %d MiB%n",
            (runtime.totalMemory() - runtime.freeMemory()) >> 20, runtime.maxMemory() >> 20);
        Platform.exit();
        return;
      }
      Part part = parts.get(index);
      if (part.name().startsWith("whole")) {
        window.view().fit();
      } else {
        window.view().show(new Span(600L * RATE, 1_200L * RATE));
      }
      new AnimationTimer() {
        private final double[] millis = new double[STEPS];
        private int step;
        private long last;

        @Override
        public void handle(long now) {
          long time = System.nanoTime();
          if (step > 0) {
            millis[step - 1] = (time - last) / 1e6;
          }
          if (step == STEPS) {
            stop();
            print(part.name() + (again ? ", again" : ""), millis);
            whenQuiet(() -> next(again ? index + 1 : index, !again));
            return;
          }
          last = time;
          part.step().at(step);
          step++;
        }
      }.start();
    }

    private static void print(String name, double[] millis) {
      Arrays.sort(millis);
      long within = Arrays.stream(millis).filter(m -> m <= 16.7 + 1).count();
      System.out.printf(
          "%-31s median %5.1f ms, p95 %5.1f, p99 %5.1f, worst %5.1f; %5.1f %% within a frame%n",
          name,
          millis[millis.length / 2],
          millis[millis.length * 95 / 100],
          millis[millis.length * 99 / 100],
          millis[millis.length - 1],
          100.0 * within / millis.length);
    }

    /** Plays from the first step to the last: every head's meter moves with every frame. */
    private void play(int step) {
      if (step == 0) {
        window.session().seek(700L * RATE);
        window.transport().toggle();
      } else if (step == STEPS - 1) {
        window.transport().stop();
      }
    }

    /** Presses at the first step and pulls at every further one. */
    private void drag(int step, String laneId, double x) {
      Node lane = window.root().lookup(laneId);
      double height = lane.getBoundsInLocal().getHeight();
      boolean line = laneId.endsWith("music");
      double y = line ? new LevelScale(height).yOf(0) : height - 25;
      double swing = 30 * Math.sin(step / 12.0);
      Pointer.drag(lane, step, STEPS, x, y, line ? x : x + 5 + swing, line ? y + 5 + swing : y);
    }

    @Override
    public void stop() {
      window.close();
    }
  }
}

package hushrise.bench;

import hushrise.app.window.Window;
import hushrise.app.file.FileChoice;
import hushrise.app.look.Theme;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.Project;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.timeline.Track;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.Progress;
import hushrise.core.time.Span;
import hushrise.media.CacheFolder;
import hushrise.media.FileMixWriter;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import hushrise.media.SilentOutput;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.event.EventType;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.stage.Stage;

/**
 * Opens a generated project of two hours, twelve tracks and 5 000 keyframes in the real window, then
 * scrolls, zooms and drags in it, one step a frame, each gesture once to warm up and once measured.
 * A frame's time is what passes between two pulses: the step, layout and drawing.
 */
public final class WindowBenchmark {

  private static final int RATE = 48_000;
  private static final long HOURS_2 = 2L * 3600 * RATE;
  private static final int STEPS = 240;

  private WindowBenchmark() {}

  /**
   * Runs all gestures, or those that begin with what is asked for.
   *
   * @param args such as {@code whole film}
   */
  public static void main(String[] args) throws IOException {
    Path folder = Files.createTempDirectory("hushrise-bench");
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
      Project project = project(new MediaStore(cache));
      window = new Window(cache, new SilentOutput(RATE), Theme.QUAY, FileChoice.NONE);
      Scene scene = new Scene(window.root(), 1280, 800);
      window.attach(stage, scene);
      stage.setScene(scene);
      stage.show();
      window.session().open(project, Optional.empty());
      window.view().fit();
      parts.add(new Part("scroll", i -> window.view().scroll(i % 80 < 40 ? 25 : -25)));
      parts.add(new Part("zoom", i -> window.view().zoom(i % 60 < 30 ? 1 / 1.1 : 1.1, 400)));
      parts.add(new Part("drag a stretch of line", i -> drag(i, "#lane-music", 500, 60)));
      parts.add(new Part("drag a clip", i -> drag(i, "#lane-voice", 300, 60)));
      parts.add(new Part("whole film: zoom", i -> window.view().zoom(i % 60 < 30 ? 1 / 1.1 : 1.1, 400)));
      parts.add(new Part("whole film: drag a line", i -> drag(i, "#lane-music", 500, 60)));
      String only = String.join(" ", getParameters().getRaw());
      parts.removeIf(p -> !p.name().startsWith(only));
      whenQuiet(() -> next(0, false));
    }

    private void whenQuiet(Runnable then) {
      new AnimationTimer() {
        private int quiet;

        @Override
        public void handle(long now) {
          quiet = window.isBusy() ? 0 : quiet + 1;
          if (quiet > 30) {
            stop();
            then.run();
          }
        }
      }.start();
    }

    /** Makes a gesture once to warm up, and once measured; then the next one. */
    private void next(int index, boolean measured) {
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
            if (measured) {
              print(part.name(), millis);
            }
            whenQuiet(() -> next(measured ? index + 1 : index, !measured));
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
          "%-24s median %5.1f ms, p95 %5.1f, p99 %5.1f, worst %5.1f; %5.1f %% within a frame%n",
          name,
          millis[millis.length / 2],
          millis[millis.length * 95 / 100],
          millis[millis.length * 99 / 100],
          millis[millis.length - 1],
          100.0 * within / millis.length);
    }

    /** Presses at the first step and pulls at every further one. */
    private void drag(int step, String laneId, double x, double dbY) {
      Node lane = window.root().lookup(laneId);
      Bounds bounds = lane.localToScene(lane.getBoundsInLocal());
      double y = laneId.endsWith("music") ? lineY(bounds.getHeight()) : bounds.getHeight() - 25;
      if (step == 0) {
        fire(lane, MouseEvent.MOUSE_PRESSED, bounds, x, y);
      } else if (step == STEPS - 1) {
        fire(lane, MouseEvent.MOUSE_RELEASED, bounds, x, y);
      } else {
        double swing = 30 * Math.sin(step / 12.0);
        boolean line = laneId.endsWith("music");
        fire(lane, MouseEvent.MOUSE_DRAGGED, bounds, line ? x : x + 5 + swing, line ? y + 5 + swing : y);
      }
    }

    private static double lineY(double height) {
      return new hushrise.app.timeline.LevelScale(height).yOf(0);
    }

    private static void fire(
        Node lane, EventType<MouseEvent> type, Bounds bounds, double x, double y) {
      lane.fireEvent(
          new MouseEvent(
              type,
              bounds.getMinX() + x,
              bounds.getMinY() + y,
              bounds.getMinX() + x,
              bounds.getMinY() + y,
              MouseButton.PRIMARY,
              1,
              false,
              false,
              false,
              false,
              type != MouseEvent.MOUSE_RELEASED,
              false,
              false,
              false,
              false,
              false,
              null));
    }

    @Override
    public void stop() {
      window.close();
    }

    private static Project project(MediaStore store) throws IOException {
      Path file = folder.resolve("noise.wav");
      Random random = new Random(1);
      try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_16, RATE)) {
        float[] block = new float[RATE];
        for (int second = 0; second < 300; second++) {
          double level = 0.1 + 0.3 * Math.abs(Math.sin(second / 7.0));
          for (int i = 0; i < block.length; i++) {
            block[i] = (float) (level * (random.nextDouble() * 2 - 1));
          }
          writer.write(block, block, block.length);
        }
        writer.finish();
      }
      Project project = Project.empty("bench");
      TrackKind[] kinds = {
        TrackKind.VOICE, TrackKind.VOICE, TrackKind.VOICE, TrackKind.MUSIC, TrackKind.MUSIC,
        TrackKind.MUSIC, TrackKind.EFFECTS, TrackKind.EFFECTS, TrackKind.EFFECTS,
        TrackKind.CAMERA, TrackKind.CAMERA, TrackKind.CAMERA
      };
      Media media = store.take(file, MediaKind.EFFECT, Progress.NONE);
      Media take = store.take(file, MediaKind.VOICE, Progress.NONE).withSpeech(Optional.of(speech()));
      project = project.withMedia(media).withMedia(take);
      List<Track> tracks = new ArrayList<>();
      for (int t = 0; t < kinds.length; t++) {
        List<Clip> clips = new ArrayList<>();
        for (long at = t * 5L * RATE; at + media.lengthFrames() < HOURS_2; at += 310L * RATE) {
          clips.add(Clip.whole(kinds[t] == TrackKind.VOICE ? take : media, at));
        }
        Track track = Track.of(kinds[t], "Track " + t, clips);
        tracks.add(kinds[t] == TrackKind.MUSIC ? shaped(track, random) : track);
      }
      return project.withTracks(tracks);
    }

    /** Five seconds of speech every fifteen: the three voices speak one after another. */
    private static List<Span> speech() {
      List<Span> all = new ArrayList<>();
      for (long at = 2L * RATE; at < 290L * RATE; at += 15L * RATE) {
        all.add(new Span(at, at + 5L * RATE - RATE / 2));
      }
      return all;
    }

    /** A third of the keyframes, and a hush every 20 seconds. */
    private static Track shaped(Track track, Random random) {
      List<Keyframe> keyframes = new ArrayList<>();
      for (int i = 0; i < 5_000 / 3; i++) {
        keyframes.add(
            new Keyframe(
                HOURS_2 / (5_000 / 3) * i,
                i % 4 < 2 ? 0 : -6 * random.nextDouble(),
                SegmentShape.SMOOTH));
      }
      List<Hush> hushes = new ArrayList<>();
      for (long at = 10L * RATE; at < HOURS_2; at += 20L * RATE) {
        hushes.add(Hush.over(new Span(at, at + 8L * RATE), -10));
      }
      return track.withLine(LevelLine.of(keyframes)).withHushes(hushes);
    }
  }
}

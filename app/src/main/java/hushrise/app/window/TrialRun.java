package hushrise.app.window;

import hushrise.app.command.CommandId;
import hushrise.app.look.Theme;
import hushrise.app.session.Selection;
import hushrise.app.timeline.LevelScale;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.animation.PauseTransition;
import javafx.scene.Node;
import javafx.util.Duration;

/**
 * Uses the window for a quarter of a minute as a person would, a step a frame, then ends. Java
 * keeps what that took and what was worth compiling, so that a person's first drag is as smooth as
 * a later one.
 */
final class TrialRun {

  /** Frames of each of its gestures. */
  private static final int STEPS = 90;

  /** Frames without work under way before the film counts as loaded. */
  private static final int QUIET = 5;

  /** However it goes, it ends: who builds the program waits for it. */
  private static final Duration MOST = Duration.seconds(90);

  private final Window window;
  private final Runnable ended;

  /**
   * @param ended runs when it is over, or has taken too long
   */
  TrialRun(Window window, Runnable ended) {
    this.window = window;
    this.ended = ended;
  }

  private interface Gesture {
    void at(int step);
  }

  void begin() {
    window.seekInto(0.35);
    Deque<Gesture> all =
        new ArrayDeque<>(
            List.of(
                step -> window.view().scroll(step % 80 < 40 ? 25 : -25),
                step -> window.view().zoom(step % 60 < 30 ? 1 / 1.1 : 1.1, 400),
                step -> dragLine("#lane-music", step),
                step -> dragClip("#lane-voice", step),
                this::dragHush,
                step -> dragClip("#lane-music", step),
                this::play,
                this::edit,
                this::look));
    Quiet.when(window, QUIET, () -> make(all));
    PauseTransition most = new PauseTransition(MOST);
    most.setOnFinished(e -> ended.run());
    most.play();
  }

  private void make(Deque<Gesture> rest) {
    new AnimationTimer() {
      private int step;

      @Override
      public void handle(long now) {
        if (step == STEPS) {
          step = 0;
          rest.removeFirst();
        }
        if (rest.isEmpty()) {
          stop();
          ended.run();
        } else {
          step++; // first: a gesture that fails is not made again with every frame
          rest.getFirst().at(step - 1);
        }
      }
    }.start();
  }

  private void dragLine(String lane, int step) {
    lane(lane).ifPresent(l -> drag(l, step, 500, scaleOf(l).yOf(0)));
  }

  private void dragClip(String lane, int step) {
    lane(lane).ifPresent(l -> drag(l, step, 300, l.getBoundsInLocal().getHeight() - 25));
  }

  private void dragHush(int step) {
    Optional<Hush> hush = music().flatMap(t -> t.hushes().stream().skip(1).findFirst());
    Optional<Node> lane = lane("#lane-music");
    if (hush.isPresent() && lane.isPresent()) {
      double middle = (hush.get().startFrame() + hush.get().endFrame()) / 2.0;
      double y = scaleOf(lane.get()).yOf(hush.get().depthDb());
      drag(lane.get(), step, window.view().axis().xOf(middle), y);
    }
  }

  /** Takes something at the first step, swings it about, and lets go of it at the last. */
  private static void drag(Node lane, int step, double x, double y) {
    double swing = 30 * Math.sin(step / 12.0);
    Pointer.drag(lane, step, STEPS, x, y, x + swing, y + swing / 3);
  }

  private void play(int step) {
    if (step == 0 || step == STEPS - 1) {
      window.run(CommandId.PLAY);
    }
  }

  /** Goes back and forth through what was done, and adds to it. */
  private void edit(int step) {
    switch (step % 8) {
      case 0 -> window.run(CommandId.UNDO);
      case 2 -> window.run(CommandId.REDO);
      case 4 -> music().ifPresent(t -> window.session().select(new Selection.OfTrack(t.id())));
      case 6 -> window.run(CommandId.LEVEL_DOWN);
      default -> window.run(CommandId.PASSAGE_NEXT);
    }
  }

  /** Opens what can be opened and changes to the other theme and back. */
  private void look(int step) {
    switch (step) {
      case 0, 16 -> window.run(CommandId.RECORDER);
      case 24 -> window.run(CommandId.EXPORT);
      case 40, 64 -> window.closeSheet();
      case 48 -> window.run(CommandId.CREDITS);
      case 72 -> window.applyTheme(Theme.LANTERN);
      case 88 -> window.applyTheme(Theme.QUAY);
      case 96 -> window.view().fit();
      case 104 -> window.run(CommandId.EAR_NEXT);
      default -> {}
    }
  }

  private Optional<Node> lane(String id) {
    return Optional.ofNullable(window.root().lookup(id));
  }

  private static LevelScale scaleOf(Node lane) {
    return new LevelScale(lane.getBoundsInLocal().getHeight());
  }

  private Optional<Track> music() {
    return window.session().shown().firstTrack(TrackKind.MUSIC);
  }
}

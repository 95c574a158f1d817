package hushrise.bench;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.AppenderBase;
import hushrise.app.command.CommandId;
import hushrise.app.look.Theme;
import hushrise.app.session.Selection;
import hushrise.app.window.Quiet;
import hushrise.app.window.Window;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.media.CacheFolder;
import hushrise.media.FirstLook;
import hushrise.media.SystemDevices;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.stage.Stage;
import org.slf4j.LoggerFactory;

/**
 * A long day in the real window in a few minutes: round after round a project is opened, worked on
 * by seeded commands at seeded places, played, given another file, saved and exported. After each
 * round, with everything quiet and collected, it is looked at what is held: heap, threads, open
 * files, mapped files, native memory. What one round leaves behind shows in all that follow.
 */
public final class Soak {

  private Soak() {}

  /**
   * @param args the demo's folder, a folder to work in, rounds, actions in each, and a seed
   */
  public static void main(String[] args) {
    Application.launch(View.class, args);
    System.exit(View.failed ? 1 : 0);
  }

  /** The window that is worked in. */
  public static final class View extends Application {

    private static final int PAUSE = 25;

    /** What ends the window, or what every round does by itself. */
    private static final Set<CommandId> LEFT_OUT =
        EnumSet.of(CommandId.QUIT, CommandId.NEW, CommandId.OPEN_DEMO, CommandId.REPORT);

    private static volatile boolean failed;

    private final List<Held> held = new ArrayList<>();
    private final List<CommandId> commands = new ArrayList<>();
    private final Choices choices = new Choices();
    private Path demo;
    private Path folder;
    private int rounds;
    private int actions;
    private long seed;
    private Window window;
    private FirstLook look;
    private volatile String last = "the start";

    @Override
    public void start(Stage stage) throws IOException {
      List<String> args = getParameters().getRaw();
      demo = Path.of(args.get(0)).toAbsolutePath();
      folder = Files.createDirectories(Path.of(args.get(1)).toAbsolutePath());
      rounds = Integer.parseInt(args.get(2));
      actions = Integer.parseInt(args.get(3));
      seed = Long.parseLong(args.get(4));
      Thread.setDefaultUncaughtExceptionHandler((t, e) -> fail(e));
      for (CommandId id : CommandId.values()) {
        if (!LEFT_OUT.contains(id)) {
          commands.add(id);
        }
      }
      complainOfErrors();
      Theme.loadFonts();
      CacheFolder cache = new CacheFolder(folder.resolve("cache"), 1L << 30);
      look = FirstLook.inForce(() -> cache);
      window = new Window(cache, new SystemDevices(), Theme.QUAY, choices, folder.resolve("work"));
      Scene scene = new Scene(window.root(), 1280, 800);
      window.attach(stage, scene);
      Thread.currentThread().setUncaughtExceptionHandler((t, e) -> fail(e));
      stage.setScene(scene);
      stage.show();
      round(0);
    }

    /** What fails in the background is in the log, and counts as well. */
    private void complainOfErrors() {
      Logger root = (Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
      AppenderBase<ILoggingEvent> appender =
          new AppenderBase<>() {
            @Override
            protected void append(ILoggingEvent event) {
              if (event.getLevel().isGreaterOrEqual(Level.ERROR)) {
                wrong("after %s: %s".formatted(last, event.getFormattedMessage()));
              }
            }
          };
      appender.setContext(root.getLoggerContext());
      appender.start();
      root.addAppender(appender);
    }

    private void fail(Throwable e) {
      if (isOfTheScreen(e)) {
        return;
      }
      failed = true;
      System.out.printf("after %s:%n", last);
      e.printStackTrace(System.out);
    }

    /** A popup that lies partly beyond the headless screen, which a real one allows. */
    private static boolean isOfTheScreen(Throwable e) {
      return e instanceof IndexOutOfBoundsException
          && Stream.of(e.getStackTrace())
              .anyMatch(at -> at.getClassName().equals("com.sun.glass.ui.headless.HeadlessWindow"));
    }

    private void round(int number) {
      if (number == rounds) {
        failed |= Held.grew(held);
        System.out.println(failed ? "Something grew or failed." : "Nothing grew, nothing failed.");
        Platform.exit();
        return;
      }
      Path own = freshCopy(number);
      window.open(own.resolve("first-ferry.hushrise"));
      whenQuiet(() -> act(number, own));
    }

    /** The demo in a folder of its own, as last round's was worked on. */
    private Path freshCopy(int number) {
      Path own = folder.resolve("round-" + number % 2);
      try {
        Scratch.delete(own);
        Files.createDirectories(own);
        try (Stream<Path> all = Files.list(demo)) {
          for (Path file : all.toList()) {
            Files.copy(file, own.resolve(file.getFileName()));
          }
        }
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
      return own;
    }

    private void act(int number, Path own) {
      Random random = new Random(seed + number);
      Hand hand = new Hand(window.root(), random);
      choices.choose(own, random);
      Fingers fingers = new Fingers(window.root(), random);
      new AnimationTimer() {
        private int done;

        @Override
        public void handle(long now) {
          if (done > 0 && done % PAUSE == 0 && window.isBusy()) {
            return;
          }
          if (hand.isHolding() && (done == actions || random.nextInt(4) == 0)) {
            hand.letGo();
          } else if (done == actions) {
            stop();
            hand.leave();
            finish(number, own);
          } else {
            done++;
            one(random, hand, fingers);
          }
        }
      }.start();
    }

    /** A command, a move of the hand, or something typed: whatever it holds, keys may come. */
    private void one(Random random, Hand hand, Fingers fingers) {
      if (hand.isHolding() && random.nextInt(5) > 0) {
        hand.drag();
        last = hand.words();
        return;
      } else if (!hand.isHolding() && random.nextBoolean()) {
        hand.press();
        last = hand.words();
        return;
      } else if (random.nextInt(3) == 0) {
        fingers.act();
        last = fingers.words() + (hand.isHolding() ? " while " + hand.words() : "");
        return;
      }
      Project project = window.session().shown();
      if (project.lengthFrames() > 0) {
        window.session().seek(random.nextLong(project.lengthFrames()));
        if (random.nextInt(3) > 0) {
          chooseSomething(project, random);
        }
      }
      CommandId command = commands.get(random.nextInt(commands.size()));
      last = command.words() + (hand.isHolding() ? " while " + hand.words() : "");
      window.run(command);
      if (random.nextInt(4) == 0) {
        window.run(CommandId.ESCAPE);
      }
    }

    private void chooseSomething(Project project, Random random) {
      List<Selection> all = new ArrayList<>();
      for (Track track : project.tracks()) {
        all.add(new Selection.OfTrack(track.id()));
        for (Clip clip : track.clips()) {
          all.add(new Selection.OfClip(track.id(), clip.id()));
          for (int i = 0; i < clip.seams().size(); i++) {
            all.add(new Selection.OfSeam(track.id(), clip.id(), i));
          }
        }
        track.hushes().forEach(h -> all.add(new Selection.OfHush(track.id(), h.id())));
        track.rises().forEach(r -> all.add(new Selection.OfRise(track.id(), r.id())));
        track
            .line()
            .keyframes()
            .forEach(k -> all.add(new Selection.OfKeyframe(track.id(), k.frame())));
      }
      if (!all.isEmpty()) {
        window.session().select(all.get(random.nextInt(all.size())));
      }
    }

    /** Stops what runs, takes a file, saves, exports, and looks at what is held. */
    private void finish(int number, Path own) {
      choices.giveNone();
      window.transport().stop();
      settle();
      whenQuiet(
          () -> {
            window.take(List.of(own.resolve("ferry-horn.flac")), true);
            whenQuiet(() -> export(number, own));
          });
    }

    private void settle() {
      for (int i = 0; i < 4; i++) {
        window.run(CommandId.ESCAPE);
      }
    }

    private void export(int number, Path own) {
      settle();
      choices.give(own.resolve("saved.hushrise"));
      window.run(CommandId.SAVE_AS);
      choices.give(own.resolve("film.mp4"));
      window.run(CommandId.EXPORT);
      press("#export-choose");
      press("#export-start");
      choices.giveNone();
      whenQuiet(
          () -> {
            settle();
            SameAgain.of(window.session(), folder).forEach(this::wrong);
            atRest(
                () -> {
                  Shown worked = Shown.by(window);
                  window.open(own.resolve("saved.hushrise"));
                  whenQuiet(
                      () ->
                          atRest(
                              () -> {
                                compare(number, worked, Shown.by(window));
                                lookAtWhatIsHeld(number);
                                round(number + 1);
                              }));
                });
          });
    }

    /** The window as it shows a project that was just opened. */
    private void atRest(Runnable then) {
      settle();
      window.session().seek(0);
      window.run(CommandId.ZOOM_ALL);
      whenQuiet(then);
    }

    private void compare(int number, Shown worked, Shown opened) {
      String differs = worked.against(opened);
      if (!differs.isEmpty()) {
        wrong("Opened again in round %d, the window %s".formatted(number + 1, differs));
      }
    }

    private void wrong(String what) {
      failed = true;
      System.out.println(what);
    }

    private void press(String button) {
      Node node = window.root().lookup(button);
      if (node instanceof ButtonBase found && !found.isDisabled()) {
        found.fire();
      }
    }

    private void lookAtWhatIsHeld(int number) {
      try {
        Held now = Held.now();
        held.add(now);
        System.out.printf("round %3d: %s%n", number + 1, now.words());
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    private void whenQuiet(Runnable then) {
      Quiet.when(window, 20, then);
    }

    @Override
    public void stop() {
      window.close();
      look.close();
    }
  }
}

package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.look.Pixels;
import hushrise.app.look.Theme;
import hushrise.app.session.Selection;
import hushrise.app.timeline.LevelScale;
import hushrise.core.Problem;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.History;
import hushrise.core.edit.LevelEdits;
import hushrise.core.journal.Recovered;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.ride.Pass;
import hushrise.core.ride.Ride;
import hushrise.core.ride.RideRule;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.image.WritableImage;
import javax.imageio.ImageIO;

/** Takes pictures of the window once everything in it has been loaded and drawn, then ends. */
final class Pictures {

  /** Where on the demo's Shelf its music lies. */
  private static final int MUSIC_ON_SHELF = 5;

  /** Frames without work under way before the window counts as drawn. */
  private static final int QUIET_FRAMES = 20;

  private static final long SETTLING_MILLIS = 2_000;

  private final Window window;

  Pictures(Window window) {
    this.window = window;
  }

  void takeOne(Path file) {
    window.seekInto(0.35);
    whenQuiet(
        () -> {
          write(file);
          Platform.exit();
        });
  }

  /** The pictures of docs/screenshots: each is a state of the window and the name of its file. */
  void takeAll(Path folder) {
    take(folder, new ArrayDeque<>(scenes()));
  }

  private record Picture(String name, Runnable prepare) {}

  private List<Picture> scenes() {
    return List.of(
        new Picture(
            "main-quay.png",
            () -> {
              window.applyTheme(Theme.QUAY);
              window.seekInto(0.35);
              selectHush();
            }),
        new Picture("main-lantern.png", () -> window.applyTheme(Theme.LANTERN)),
        new Picture(
            "export.png",
            () -> {
              window.applyTheme(Theme.QUAY);
              window.run(CommandId.EXPORT);
              if (window.root().lookup("#export-loudness") instanceof CheckBox wanted) {
                wanted.fire();
              }
              if (window.root().lookup("#export-target") instanceof Label target) {
                target.setText(text("shots.target"));
              }
            }),
        new Picture(
            "credits.png",
            () -> {
              window.closeSheet();
              window.run(CommandId.CREDITS);
            }),
        new Picture(
            "shelf.png",
            () -> {
              window.closeSheet();
              window.session().select(Selection.nothing());
              window.shelf();
              if (window.root().lookup("#shelf-list") instanceof ListView<?> list) {
                list.scrollTo(MUSIC_ON_SHELF);
              }
            }),
        new Picture(
            "seams.png",
            () -> {
              window.shelf();
              selectSeam();
            }),
        new Picture("hush-drag.png", this::dragHush),
        new Picture(
            "level-sum.png",
            () -> {
              lane().ifPresent(l -> Pointer.letGo(l, 0, 0));
              window.run(CommandId.UNDO);
              music().ifPresent(t -> window.session().select(new Selection.OfTrack(t.id())));
            }),
        new Picture("heads-playing.png", this::play),
        new Picture("ride.png", this::ride),
        new Picture("recorder.png", this::record),
        new Picture("draft.png", this::draft),
        new Picture("second-ear.png", this::worse),
        new Picture(
            "small.png",
            () -> {
              window.run(CommandId.UNDO);
              selectHush();
              size(1000, 640);
            }),
        new Picture("missing.png", this::loseMusic),
        new Picture(
            "versions.png",
            () -> {
              window.run(CommandId.UNDO);
              window.files().look(); // the music is back
              Path file = window.session().file().orElseThrow();
              window.say("");
              window.keeping().versions().keep(file, 5);
              window.run(CommandId.VERSIONS);
            }),
        new Picture("recovery.png", this::offer),
        new Picture(
            "start.png",
            () -> {
              window.closeSheet();
              window.session().open(Project.empty(""), Optional.empty());
              window.say("");
            }));
  }

  private void size(double width, double height) {
    window.root().getScene().getWindow().setWidth(width);
    window.root().getScene().getWindow().setHeight(height);
  }

  /** The film with its music moved away. */
  private void loseMusic() {
    size(1280, 800);
    window.session().select(Selection.nothing());
    window
        .session()
        .replace(
            text("edit.findFiles"),
            window
                .session()
                .present()
                .withShelf(
                    window.session().present().shelf().stream()
                        .map(m -> m.kind() == MediaKind.MUSIC ? moved(m) : m)
                        .toList()));
    window.files().look();
    window
        .jobs()
        .run(
            () -> {
              Thread.sleep(SETTLING_MILLIS); // in which everybody has said that it is not there
              return true;
            },
            settled -> window.say(text("file.missing", "harbour-tune.mp3", 0)));
  }

  private static Media moved(Media media) {
    return media.withFile(media.file().resolveSibling("moved").resolve(media.file().getFileName()));
  }

  /** What is offered after a crash. */
  private void offer() {
    window.closeSheet();
    window.say("");
    History history = new History(window.session().present());
    history.commit("1", history.present().withMasterDb(-1));
    window.offer(
        List.of(
            new Recovered(
                Path.of("steps.journal"),
                Optional.of(Path.of(text("shots.project"))),
                Instant.now(),
                37,
                history,
                0,
                0)));
  }

  /** The film while it plays, the music armed to be ridden. */
  private void play() {
    window.run(CommandId.RIDE_ARM);
    window.seekInto(0.26);
    window.run(CommandId.PLAY);
  }

  /** What a hand has done to the music under the first two passages. */
  private void ride() {
    Track track = music().orElseThrow();
    List<Hush> hushes = track.hushes();
    int rate = window.session().shown().sampleRate();
    Pass pass = new Pass();
    double db = -1;
    for (long frame = 0; frame < hushes.get(1).endFrame() + 2L * rate; frame += 512) {
      long at = frame;
      boolean speaks =
          hushes.stream()
              .anyMatch(h -> at > h.startFrame() - rate / 2 && at < h.endFrame() + rate / 4);
      double wanted = speaks ? -11 + 1.5 * Math.sin(frame / (2.3 * rate)) : -0.5;
      db += (wanted - db) * (speaks ? 0.035 : 0.012);
      pass.add(frame, db, frame == 0);
    }
    window
        .session()
        .commit(
            text("edit.ride"),
            p ->
                p.withTrack(
                    track.id(),
                    t ->
                        t.withHushes(hushes.subList(2, hushes.size()))
                            .withLine(Ride.written(t.line(), pass, RideRule.DEFAULT, rate))));
  }

  /** The recorder with a text to read. */
  private void record() {
    window.run(CommandId.UNDO);
    window.run(CommandId.RIDE_ARM);
    window.session().select(Selection.nothing());
    window.run(CommandId.RECORDER);
    window
        .session()
        .commit(text("edit.script"), p -> p.withScript(Optional.of(text("shots.reading"))));
  }

  /** A draft over a film in which one hush is gone, one was set by hand and one voice is louder. */
  private void draft() {
    window.run(CommandId.RECORDER);
    List<Hush> hushes = music().map(Track::hushes).orElse(List.of());
    String voice = window.session().shown().voiceTracks().findFirst().map(Track::id).orElse("");
    window
        .session()
        .commit(
            text("edit.removeHush"),
            p -> {
              Project changed = LevelEdits.removeHush(p, hushes.get(1).id());
              changed = LevelEdits.setHushDepth(changed, hushes.get(3).id(), -15);
              return LevelEdits.setTrackLevel(changed, voice, 2);
            });
    window.run(CommandId.HUSH_ALL);
  }

  /** The film made worse by hand, and what the Second Ear says. */
  private void worse() {
    window.run(CommandId.DRAFT_LEAVE);
    List<Hush> hushes = music().map(Track::hushes).orElse(List.of());
    String song = music().map(t -> t.clips().getFirst().id()).orElse("");
    window
        .session()
        .commit(
            text("edit.hushDepth"),
            p -> FadeEdits.fitOut(LevelEdits.setHushDepth(p, hushes.get(1).id(), -3), song, 0));
    whenQuiet(() -> window.run(CommandId.EAR_NEXT));
  }

  private void take(Path folder, Deque<Picture> rest) {
    if (rest.isEmpty()) {
      Platform.exit();
      return;
    }
    Picture next = rest.removeFirst();
    whenQuiet(
        () -> {
          next.prepare().run();
          whenQuiet(
              () -> {
                write(folder.resolve(next.name()));
                window.transport().stop();
                take(folder, rest);
              });
        });
  }

  private void selectHush() {
    music()
        .ifPresent(
            t ->
                t.hushes().stream()
                    .skip(1)
                    .findFirst()
                    .map(Hush::id)
                    .ifPresent(id -> window.session().select(new Selection.OfHush(t.id(), id))));
  }

  private void selectSeam() {
    music()
        .ifPresent(
            t ->
                t.clips().stream()
                    .filter(c -> c.seams().size() > 1)
                    .findFirst()
                    .ifPresent(
                        c -> window.session().select(new Selection.OfSeam(t.id(), c.id(), 1))));
  }

  private Optional<Node> lane() {
    return Optional.ofNullable(window.root().lookup("#lane-music"));
  }

  /** Takes the second hush's floor and holds it lower. */
  private void dragHush() {
    Optional<Hush> hush = music().flatMap(t -> t.hushes().stream().skip(1).findFirst());
    if (hush.isPresent() && lane().isPresent()) {
      Node lane = lane().get();
      LevelScale scale = new LevelScale(lane.getBoundsInLocal().getHeight());
      double x = window.view().axis().xOf((hush.get().startFrame() + hush.get().endFrame()) / 2.0);
      Pointer.press(lane, x, scale.yOf(hush.get().depthDb()));
      Pointer.pull(lane, x, scale.yOf(hush.get().depthDb() - 2));
      Pointer.pull(lane, x, scale.yOf(hush.get().depthDb() - 5));
    }
  }

  private Optional<Track> music() {
    return window.session().shown().firstTrack(TrackKind.MUSIC);
  }

  private void whenQuiet(Runnable then) {
    Quiet.when(window, QUIET_FRAMES, then);
  }

  private void write(Path file) {
    WritableImage image = window.root().getScene().snapshot(null);
    int width = (int) image.getWidth();
    int height = (int) image.getHeight();
    BufferedImage copy = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
    copy.setRGB(0, 0, width, height, Pixels.of(image), 0, width);
    try {
      Path absolute = file.toAbsolutePath();
      Files.createDirectories(absolute.getParent());
      if (!ImageIO.write(copy, "png", absolute.toFile())) {
        throw new IOException("no PNG writer");
      }
    } catch (IOException e) {
      throw new Problem(
          "The picture %s cannot be written: choose another place.".formatted(file), e);
    }
  }
}

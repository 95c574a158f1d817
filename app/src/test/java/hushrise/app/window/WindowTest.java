package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.look.Theme;
import hushrise.core.loudness.LoudnessMeter;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.store.ProjectFile;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import javafx.geometry.VerticalDirection;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Labeled;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Finding one's way, playing, saving and exporting in the window. */
class WindowTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
  }

  /** Every tenth pixel of the picture that is shown. */
  private List<Integer> shownPicture() {
    Image image = ((ImageView) find("picture").lookup(".image-view")).getImage();
    List<Integer> pixels = new ArrayList<>();
    robot.interact(
        () -> {
          for (int y = 0; y < image.getHeight(); y += 10) {
            for (int x = 0; x < image.getWidth(); x += 10) {
              pixels.add(image.getPixelReader().getArgb(x, y));
            }
          }
        });
    return pixels;
  }

  @Test
  void playingMovesThePlayheadAndThePictureUntilSpaceStopsIt() {
    robot.interact(() -> window.session().seek(30L * RATE));
    untilQuiet();
    List<Integer> before = shownPicture();
    press(KeyCode.SPACE);
    until("the playhead has moved a second", () -> window.session().playhead() > 31L * RATE);
    assertThat(window.transport().playingProperty().get()).isTrue();
    assertThat(shownPicture()).isNotEqualTo(before);
    press(KeyCode.SPACE);
    assertThat(window.transport().playingProperty().get()).isFalse();
    long stopped = window.session().playhead();
    assertThat(stopped).isLessThan(90L * RATE);
    untilQuiet();
    assertThat(window.session().playhead()).isEqualTo(stopped);
  }

  @Test
  void seekingWhilePlayingGoesOnFromThere() {
    press(KeyCode.SPACE);
    until("it plays", () -> window.session().playhead() > RATE / 10);
    robot.clickOn(on("ruler", 60, 0).getX(), robot.point("#ruler").query().getY());
    until("it plays on", () -> window.session().playhead() > Math.round(60.3 * RATE));
    press(KeyCode.SPACE);
  }

  @Test
  void keysMoveThePlayheadByFramesAndToTheEnds() {
    press(KeyCode.END);
    assertThat(window.session().playhead()).isEqualTo(96L * RATE);
    press(KeyCode.HOME);
    press(KeyCode.RIGHT);
    press(KeyCode.RIGHT);
    press(KeyCode.RIGHT);
    press(KeyCode.LEFT);
    assertThat(window.session().playhead()).isEqualTo(2L * RATE / 25);
    assertThat(((javafx.scene.control.TextField) find("clock")).getText()).isEqualTo("00:00:00:02");
    type("clock", "1:05:10");
    assertThat(window.session().playhead()).isEqualTo(65L * RATE + 10L * RATE / 25);
  }

  @Test
  void theWheelZoomsAroundThePointerAndScrolls() {
    long pointed = Math.round(47.0 * RATE);
    double x = window.view().axis().xOf(pointed);
    for (int i = 0; i < 8; i++) {
      ctrlWheel(47, 40);
    }
    double zoomed = window.view().axis().framesPerPixel();
    assertClose(window.view().axis().xOf(pointed), x, 2);
    assertThat(zoomed).isLessThan(2_000);
    double start = window.view().axis().startFrame();
    robot.moveTo(on(47, -30));
    robot.scroll(3, VerticalDirection.UP);
    assertThat(window.view().axis().startFrame()).isNotEqualTo(start);
    press(KeyCode.DIGIT0);
    assertThat(window.view().axis().startFrame()).isZero();
    press(KeyCode.EQUALS);
    assertThat(window.view().axis().framesPerPixel()).isLessThan(4_500);
  }

  @Test
  void trackHeadsSetLevelMuteAndSolo() {
    type("level-music", "-4.5");
    assertThat(music().levelDb()).isEqualTo(-4.5);
    robot.clickOn("#mute-camera").clickOn("#solo-voice");
    assertThat(project().firstTrack(TrackKind.CAMERA).orElseThrow().muted()).isTrue();
    assertThat(project().firstTrack(TrackKind.VOICE).orElseThrow().soloed()).isTrue();
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(((ToggleButton) find("solo-voice")).isSelected()).isFalse();
  }

  @Test
  void anEditMeasuresTheSeparationAnew() {
    type("level-music", "-3");
    untilQuiet();
    until(
        "the list shows the wider separation",
        () ->
            robot.lookup("#passages .passage").queryAll().stream()
                .map(Node::getAccessibleText)
                .allMatch(t -> t.contains("clear") && !t.contains(" 10.0 LU")));
  }

  @Test
  void savingAsOpeningAndTheUnsavedMark() throws IOException {
    type("level-music", "-2");
    assertThat(((Labeled) find("saved-state")).getText()).contains("not saved");
    Path copy = folder.resolve("copy.hushrise");
    chosen.next(copy);
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.S);
    assertThat(((Labeled) find("saved-state")).getText()).isEqualTo("saved");
    assertThat(ProjectFile.load(copy).firstTrack(TrackKind.MUSIC).orElseThrow().levelDb())
        .isEqualTo(-2);
    type("level-music", "-7");
    press(KeyCode.CONTROL, KeyCode.S);
    assertThat(ProjectFile.load(copy).firstTrack(TrackKind.MUSIC).orElseThrow().levelDb())
        .isEqualTo(-7);
    chosen.next(folder.resolve("first-ferry.hushrise"));
    press(KeyCode.CONTROL, KeyCode.O);
    until("the first project is back", () -> music().levelDb() == 0);
  }

  @Test
  void openingAskesBeforeChangesAreLost() {
    type("level-music", "-2");
    press(KeyCode.CONTROL, KeyCode.O);
    assertThat(robot.lookup(".sheet-title").queryLabeled().getText()).contains("not saved");
    press(KeyCode.ESCAPE);
    assertThat(music().levelDb()).isEqualTo(-2);
  }

  @Test
  void anExportedMixIsQuieterInsideTheDipByWhatWasDrawn() {
    for (String mute : new String[] {"#mute-voice", "#mute-effects", "#mute-camera"}) {
      robot.clickOn(mute);
    }
    for (double t : new double[] {56, 57, 63, 64}) {
      ctrlClick(t, -25);
    }
    robot.clickOn(on(57, 0));
    type("detail-keyframe", "-14");
    robot.clickOn(on(63, 0));
    type("detail-keyframe", "-14");
    Path out = folder.resolve("mix.wav");
    export(OutputFormat.WAV_24, out);
    until("it is exported", () -> status().contains("is written"));
    SampleSource mix = store.open(out, RATE, Progress.NONE);
    assertThat(mix.lengthFrames()).isEqualTo(96L * RATE);
    SampleSource tune = store.open(folder.resolve("harbour-tune.mp3"), RATE, Progress.NONE);
    double source =
        lufs(
            tune,
            2,
            project()
                .firstTrack(TrackKind.MUSIC)
                .orElseThrow()
                .clips()
                .getFirst()
                .mediaFrameAt(58L * RATE));
    assertClose(lufs(mix, 2, 58L * RATE) - source, -14 + project().masterDb(), 0.1);
    double before = lufs(tune, 4, 18L * RATE);
    assertClose(lufs(mix, 4, 18L * RATE) - before, project().masterDb(), 0.1);
  }

  private static double lufs(SampleSource source, int seconds, long from) {
    float[][] planar = new float[2][seconds * RATE];
    source.read(from, planar[0].length, planar[0], planar[1], 0);
    LoudnessMeter meter = LoudnessMeter.forChannels(RATE, 2);
    meter.add(planar, 0, planar[0].length);
    return meter.integratedLufs();
  }

  @Test
  void aFilmIsExportedWithItsPictureCopied() {
    Path out = folder.resolve("exported.mp4");
    export(OutputFormat.MP4, out);
    until("it is exported", () -> status().contains("picture copied untouched"));
    assertThat(hushrise.media.Probe.of(out).seconds()).isBetween(95.9, 96.1);
  }

  @Test
  void aCancelledExportLeavesTheFolderAsItWas() throws IOException {
    Path out = Files.writeString(folder.resolve("old.webm"), "the old film");
    long files = count();
    export(OutputFormat.WEBM, out);
    robot.clickOn("#job-cancel");
    until("it says that it was cancelled", () -> status().contains("Cancelled"));
    untilQuiet();
    assertThat(Files.readString(out)).isEqualTo("the old film");
    assertThat(count()).isEqualTo(files);
  }

  private long count() throws IOException {
    try (Stream<Path> all = Files.list(folder)) {
      return all.count();
    }
  }

  @Test
  void aProblemIsShownAsASentenceAndNothingChanges() throws IOException {
    Path words = Files.writeString(folder.resolve("words.mp3"), "no music\n".repeat(100));
    robot.interact(() -> window.take(java.util.List.of(words), true));
    until(
        "the problem is shown",
        () -> status().contains("words.mp3") && status().contains("choose another file"));
    assertThat(project().tracks()).hasSize(5);
    export(OutputFormat.MP4, folder.resolve("first-ferry.mp4"));
    until("the problem is shown", () -> status().contains("would be lost"));
    assertThat(folder.resolve("first-ferry.mp4"))
        .hasSameBinaryContentAs(Path.of("../demo/data/first-ferry.mp4"));
  }

  @Test
  void bothThemesAndSmallWindowsHold() {
    robot.interact(() -> window.run(CommandId.THEME));
    assertThat(window.root().getStyle()).contains("#10171E");
    robot.interact(
        () -> {
          window.root().getScene().getWindow().setWidth(900);
          window.root().getScene().getWindow().setHeight(600);
        });
    untilQuiet();
    Node export = find("export");
    assertThat(export.localToScene(export.getBoundsInLocal()).getMaxX()).isLessThanOrEqualTo(900);
    robot.interact(() -> window.applyTheme(Theme.QUAY));
    assertThat(window.root().getStyle()).contains("#E9E6DF");
  }

  @Test
  void everyButtonHasANameForAssistiveTechnology() {
    assertThat(robot.lookup((Node n) -> n instanceof ButtonBase b && b.isVisible()).queryAll())
        .isNotEmpty()
        .allSatisfy(
            n -> {
              ButtonBase button = (ButtonBase) n;
              String name =
                  button.getAccessibleText() == null
                      ? button.getText()
                      : button.getAccessibleText();
              assertThat(name).as("%s", n).isNotBlank();
            });
  }
}

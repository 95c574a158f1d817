package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.speech.Passages;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** From an empty window to a hushed film. */
class FromScratchTest extends WindowTestCase {

  @Override
  boolean opensDemo() {
    return false;
  }

  private void add(String name) {
    int before = project().shelf().size();
    chosen.next(folder.resolve(name));
    press(KeyCode.CONTROL, KeyCode.I);
    until(name + " is taken", () -> project().shelf().size() > before);
    untilQuiet();
  }

  @Test
  void anEmptyWindowSaysWhatToDoNext() {
    assertThat(find("start").isVisible()).isTrue();
    assertThat(find("picture-none").isVisible()).isTrue();
    press(KeyCode.H);
    assertThat(status()).contains("no film yet");
    press(KeyCode.CONTROL, KeyCode.E);
    assertThat(status()).contains("no film yet");
  }

  @Test
  void filesBecomeAFilmWithAHushUnderTheNarration() {
    add("first-ferry.mp4");
    add("harbour-tune.mp3");
    assertThat(project().lengthFrames()).isEqualTo(96L * RATE);
    assertThat(music().clips().getFirst().endFrame()).isEqualTo(96L * RATE);
    robot.interact(() -> window.session().seek(6L * RATE));
    add("ferry-horn.flac");
    assertThat(
            project().firstTrack(TrackKind.EFFECTS).orElseThrow().clips().getFirst().startFrame())
        .isEqualTo(6L * RATE);
    robot.interact(() -> window.session().seek(20L * RATE));
    add("narration-1.flac");
    press(KeyCode.H);
    until("the hush is there", () -> music().hushes().size() == 1);
    assertThat(music().hushes().getFirst().startFrame()).isBetween(20L * RATE, 21L * RATE);
    assertThat(window.session().undoName()).hasValue("hush the speech");
  }

  @Test
  void musicThatCameFirstEndsWithTheNarrationAndThenWithTheFilm() {
    add("harbour-tune.mp3");
    long alone = music().clips().getFirst().endFrame();
    robot.interact(() -> window.session().seek(3L * RATE));
    add("narration-1.flac");
    long spoken = project().firstTrack(TrackKind.VOICE).orElseThrow().endFrame();
    assertThat(spoken + 4L * RATE).isLessThan(alone);
    assertThat(music().clips().getFirst().endFrame()).isEqualTo(spoken + 4L * RATE);
    assertThat(this.<Label>find("picture-none").getText()).contains("drop a film");
    add("first-ferry.mp4");
    assertThat(find("picture-none").isVisible()).isFalse();
    until("the music is looped", () -> music().clips().getFirst().endFrame() == 96L * RATE);
    Clip bed = music().clips().getFirst();
    assertThat(bed.fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(bed.fadeOut().lengthFrames()).isEqualTo(4L * RATE);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(music().clips().getFirst().endFrame()).isEqualTo(spoken + 4L * RATE);
  }

  @Test
  void aStillChosenAsTheFilmLastsAsLongAsSomebodySpeaks() throws IOException {
    BufferedImage image = new BufferedImage(64, 36, BufferedImage.TYPE_INT_RGB);
    Path cover = folder.resolve("cover.png");
    assertThat(ImageIO.write(image, "png", cover.toFile())).isTrue();
    chosen.next(cover);
    robot.clickOn("#start-picture");
    until("it is taken", () -> project().lengthFrames() == 5L * RATE);
    assertThat(status()).contains("cover.png is the picture");
    add("narration-1.flac");
    long spoken = project().firstTrack(TrackKind.VOICE).orElseThrow().endFrame();
    assertThat(project().pictureEndFrame()).hasValue(spoken + 4L * RATE);
    add("harbour-tune.mp3");
    assertThat(music().clips().getFirst().endFrame()).isEqualTo(spoken + 4L * RATE);
    press(KeyCode.CONTROL, KeyCode.Z);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().lengthFrames()).isEqualTo(5L * RATE);
    add("cover.png");
    assertThat(status()).contains("after the picture, for five seconds");
    assertThat(project().lengthFrames()).isEqualTo(10L * RATE);
  }

  private static final String[] FILES = {
    "first-ferry.mp4",
    "harbour-tune.mp3",
    "narration-1.flac",
    "narration-2.flac",
    "narration-3.flac",
    "narration-4.flac",
    "ferry-horn.flac"
  };

  private static final double[] PLACES = {0, 0, 6, 25.5, 47, 66.5, 18.2};

  private void assertPlacedAndFitted() {
    assertThat(project().lengthFrames()).isEqualTo(96L * RATE);
    Clip bed = music().clips().getFirst();
    assertThat(bed.startFrame()).isZero();
    assertThat(bed.endFrame()).isEqualTo(96L * RATE);
    assertThat(bed.fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(bed.seams()).isNotEmpty();
    List<Clip> takes = project().firstTrack(TrackKind.VOICE).orElseThrow().clips();
    assertThat(takes).hasSize(4);
    for (int i = 0; i < 4; i++) {
      assertClose(takes.get(i).startFrame() / (double) RATE, PLACES[2 + i], 0.15);
    }
    Clip horn = project().firstTrack(TrackKind.EFFECTS).orElseThrow().clips().getFirst();
    assertClose(horn.startFrame() / (double) RATE, 18.2, 0.15);
    assertThat(project().firstTrack(TrackKind.CAMERA)).isPresent();
  }

  /** Dropping the files (a call here), Hush, Take it, Export, Export: a film that stands clear. */
  @Test
  void fiveActionsMakeAClearFilmOfRawFiles() {
    List<Path> dropped = Stream.of(FILES).map(folder::resolve).toList();
    robot.interact(() -> window.take(dropped, true));
    until("all are placed", () -> clips() == FILES.length + 1);
    untilQuiet();
    robot.clickOn("#hush");
    until("the draft is shown", () -> window.session().draft().isPresent());
    robot.clickOn("#draft-take");
    assertThat(music().hushes()).isNotEmpty();
    robot.clickOn("#export");
    robot.clickOn("#export-start");
    until("it is exported", () -> status().contains("picture copied untouched"));
    assertThat(folder.resolve("first-ferry finished.mp4")).isNotEmptyFile();
    List<PassageLoudness> rendered =
        PassageLoudness.measure(project(), store, Passages.of(project()));
    assertThat(rendered).hasSizeGreaterThanOrEqualTo(4);
    assertThat(rendered).allSatisfy(p -> assertThat(p.separationLu()).isBetween(9.7, 12.3));
  }

  /** The same song under another name. */
  private Path secondSong() throws IOException {
    return Files.copy(folder.resolve("harbour-tune.mp3"), folder.resolve("evening-tune.mp3"));
  }

  @Test
  void aSecondSongWaitsOnTheShelfAndTakesOverWhereItIsPlaced() throws IOException {
    secondSong();
    add("first-ferry.mp4");
    add("harbour-tune.mp3");
    add("evening-tune.mp3");
    assertThat(status()).contains("on the Shelf", "harbour-tune.mp3 already plays");
    assertThat(music().clips()).hasSize(1);
    robot.interact(() -> window.session().seek(50L * RATE));
    robot.clickOn("#shelf-button");
    clickOnItem("evening-tune.mp3");
    robot.interact(() -> this.<ButtonBase>find("item-place").fire());
    until("it is placed", () -> music().clips().size() == 2);
    assertThat(status()).contains("takes over from harbour-tune.mp3");
    assertThat(music().clips()).extracting(Clip::endFrame).containsExactly(52L * RATE, 96L * RATE);
    assertThat(music().clips().getLast().startFrame()).isEqualTo(50L * RATE);
  }

  @Test
  void aSongPlacedWhereAnotherBeginsPlaysInItsPlace() throws IOException {
    secondSong();
    add("first-ferry.mp4");
    add("harbour-tune.mp3");
    add("evening-tune.mp3");
    robot.clickOn("#shelf-button");
    clickOnItem("evening-tune.mp3");
    robot.interact(() -> this.<ButtonBase>find("item-place").fire());
    until("it is placed", () -> status().contains("in place of harbour-tune.mp3"));
    assertThat(music().clips()).hasSize(1);
    assertThat(music().clips().getFirst().endFrame()).isEqualTo(96L * RATE);
    List<Clip> placed = music().clips();
    robot.interact(() -> this.<ButtonBase>find("item-place").fire());
    assertThat(status()).contains("evening-tune.mp3 already plays here");
    assertThat(music().clips()).isEqualTo(placed);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().media(music().clips().getFirst().mediaId()).orElseThrow().title())
        .isEqualTo("harbour-tune.mp3");
  }

  @Test
  void songsThatComeTogetherFollowOneAnotherAndNarrationFollowsNarration() throws IOException {
    List<Path> dropped =
        List.of(
            folder.resolve("first-ferry.mp4"), folder.resolve("harbour-tune.mp3"), secondSong());
    robot.interact(() -> window.take(dropped, true));
    until("all are on the Shelf", () -> project().shelf().size() == 3);
    untilQuiet();
    List<Clip> songs = music().clips();
    assertThat(songs).hasSize(2);
    assertThat(songs.getFirst().endFrame()).isEqualTo(songs.getLast().startFrame());
    assertThat(songs.getFirst().seams()).isEmpty();
    assertThat(songs.getLast().endFrame()).isEqualTo(96L * RATE);
    add("narration-1.flac");
    add("narration-2.flac");
    assertThat(status()).contains("where there is room");
    List<Clip> takes = project().firstTrack(TrackKind.VOICE).orElseThrow().clips();
    assertThat(takes.getFirst().startFrame()).isZero();
    assertThat(takes.getLast().startFrame()).isEqualTo(takes.getFirst().endFrame() + RATE);
  }

  @Test
  void byMouseAloneTheRawFilesBecomeAFittedTimeline() {
    robot.clickOn("#shelf-button");
    List<Path> dropped = Stream.of(FILES).map(folder::resolve).toList();
    robot.interact(() -> window.take(dropped, false));
    until("all are on the Shelf", () -> project().shelf().size() == FILES.length);
    untilQuiet();
    assertThat(project().tracks()).isEmpty();
    for (int i = 0; i < FILES.length; i++) {
      if (i > 1) {
        double x = on("ruler", PLACES[i], 0).getX();
        robot.clickOn(x, robot.point("#ruler").query().getY() + 6);
      }
      clickOnItem(FILES[i]);
      int clips = clips();
      robot.clickOn("#item-place");
      until(FILES[i] + " is placed", () -> clips() > clips);
      untilQuiet();
    }
    assertPlacedAndFitted();
  }

  @Test
  void nothingIsSaidToBeWellBeforeItHasBeenListenedTo() {
    robot.clickOn("#shelf-button");
    robot.interact(() -> window.take(List.of(folder.resolve("narration-1.flac")), false));
    until("it is on the Shelf", () -> project().shelf().size() == 1);
    untilQuiet();
    clickOnItem("narration-1.flac");
    List<String> said = new ArrayList<>();
    robot.interact(
        () -> {
          this.<ButtonBase>find("item-place").fire();
          said.add(wordsOfTheSecondEar());
        });
    assertThat(clips()).isEqualTo(1);
    assertThat(said).containsExactly("Listening \u2026");
    until("it was heard", () -> !wordsOfTheSecondEar().startsWith("Listening"));
  }

  private String wordsOfTheSecondEar() {
    return find("second-ear").lookupAll(".label").stream()
        .filter(Labeled.class::isInstance)
        .map(n -> ((Labeled) n).getText())
        .collect(Collectors.joining(" "));
  }

  private int clips() {
    return project().tracks().stream().mapToInt(t -> t.clips().size()).sum();
  }

  /** Scrolls the Shelf to an item and presses it. */
  private void clickOnItem(String title) {
    ListView<Media> list = find("shelf-list");
    robot.interact(
        () ->
            list.getItems().stream()
                .filter(m -> m.title().equals(title))
                .findFirst()
                .ifPresent(list::scrollTo));
    until(title + " is in view", () -> cell(list, title).isPresent());
    robot.clickOn(cell(list, title).orElseThrow());
    until("it is selected", () -> list.getSelectionModel().getSelectedItem().title().equals(title));
  }

  private static Optional<Node> cell(ListView<Media> list, String title) {
    return list.lookupAll(".list-cell").stream()
        .filter(
            n ->
                n instanceof ListCell<?> c
                    && c.getItem() instanceof Media m
                    && m.title().equals(title))
        .filter(Node::isVisible)
        .findFirst();
  }

  @Test
  void byKeyboardAloneTheRawFilesBecomeAFittedTimeline() {
    double at = 0;
    for (int i : new int[] {0, 1, 2, 6, 3, 4, 5}) {
      long frames = Math.round((PLACES[i] - at) * 25);
      for (int second = 0; second < frames / 25; second++) {
        press(KeyCode.SHIFT, KeyCode.RIGHT);
      }
      for (int frame = 0; frame < frames % 25; frame++) {
        press(KeyCode.RIGHT);
      }
      at = window.session().playhead() / (double) RATE;
      add(FILES[i]);
    }
    assertPlacedAndFitted();
  }
}

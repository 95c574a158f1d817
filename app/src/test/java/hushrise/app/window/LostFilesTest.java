package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.play.Meters;
import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Files that go, come back, or lie elsewhere now. */
@Tag(WindowTestCase.ANY_PLATFORM)
class LostFilesTest extends WindowTestCase {

  private Media song() {
    return project().shelf().stream()
        .filter(m -> m.kind() == MediaKind.MUSIC)
        .findFirst()
        .orElseThrow();
  }

  private void untilMissing(int count) {
    until(
        count + " files are missing",
        () -> {
          window.files().look();
          return window.files().missingProperty().get().size() == count;
        });
  }

  private void untilContentsAreKnown() {
    until(
        "the contents are known",
        () -> {
          window.files().look();
          return project().shelf().stream().allMatch(m -> m.content().isPresent());
        });
  }

  @Test
  void aFileThatGoesAndComesBackIsSilentMeanwhileAndTheSameAfter() throws IOException {
    untilOpen();
    untilQuiet();
    untilContentsAreKnown();
    assertThat(window.session().hasUnsavedChanges()).isFalse();
    Path file = song().file();
    Path away = folder.resolve("away.mp3");
    Files.move(file, away);
    untilMissing(1);
    assertThat(status()).contains("harbour-tune.mp3", "is silent until it is back");
    until("the Second Ear offers to find it", () -> window.root().lookup("#ear-find") != null);
    Media before = song();
    Files.move(away, file);
    untilMissing(0);
    until("that is said", () -> status().contains("is there again"));
    untilQuiet();
    assertThat(song()).isEqualTo(before);
    assertThat(window.session().hasUnsavedChanges()).isFalse();
    assertThat(window.session().undoName()).isEmpty();
  }

  @Test
  void whatIsGoneWhenAProjectIsOpenedIsToldOnceWithWhatToDo() throws IOException {
    untilOpen();
    untilQuiet();
    Path file = song().file();
    Path away = folder.resolve("away.mp3");
    Path other = folder.resolve("other.hushrise");
    ProjectFile.save(project().withName("Other"), other);
    Files.move(file, away);
    robot.interact(() -> window.take(List.of(other), true));
    until("it is open", () -> project().name().equals("Other"));
    untilMissing(1);
    untilQuiet();
    assertThat(status()).contains("harbour-tune.mp3", "Find missing files looks for them");
    Files.move(away, file);
    untilMissing(0);
    until("that is said", () -> status().contains("is there again"));
    untilQuiet();
    until("it is measured", () -> window.root().lookup("#ear-find") == null);
  }

  @Test
  void ofHundredsOfMissingFilesSomeAreListedAndTheOthersCounted() throws IOException {
    untilOpen();
    untilQuiet();
    List<Media> voices =
        IntStream.range(0, 300)
            .mapToObj(
                i ->
                    new Media(
                        "gone-" + i,
                        folder.resolve("gone-%d.wav".formatted(i)),
                        MediaKind.VOICE,
                        RATE,
                        true,
                        Optional.empty(),
                        ""))
            .toList();
    List<Clip> clips =
        IntStream.range(0, 300).mapToObj(i -> Clip.whole(voices.get(i), 2L * i * RATE)).toList();
    Path many = folder.resolve("many.hushrise");
    ProjectFile.save(
        Project.empty("")
            .withShelf(voices)
            .withTracks(List.of(Track.of(TrackKind.VOICE, "Narration", clips))),
        many);
    robot.interact(() -> window.take(List.of(many), true));
    until("it is open", () -> project().name().equals("many"));
    untilMissing(300);
    until("they are listed", () -> window.root().lookup("#ear-find") != null);
    untilQuiet();
    assertThat(window.root().lookupAll("#ear-find")).hasSize(24);
    assertThat(window.root().lookupAll("#second-ear .label"))
        .extracting(label -> ((Label) label).getText())
        .contains("and 276 more");
    chosen.next(Files.createDirectories(folder.resolve("empty")));
    robot.interact(() -> window.run(CommandId.FIND_FILES));
    until("it says so", () -> status().contains("None of them is in"));
    assertThat(status()).contains("gone-0.wav, gone-1.wav, gone-2.wav and 297 more.");
  }

  @Test
  void aFileThatGoesAndComesBackWhileItPlaysIsHeardAsItIs() throws IOException {
    untilOpen();
    untilQuiet();
    Path file = song().file();
    Path away = folder.resolve("away.mp3");
    robot.interact(() -> window.run(CommandId.PLAY));
    untilHeard(true);
    Files.move(file, away);
    untilMissing(1);
    untilHeard(false);
    assertThat(status()).contains("harbour-tune.mp3", "is silent until it is back");
    Files.move(away, file);
    untilMissing(0);
    untilHeard(true);
    assertThat(window.transport().playingProperty().get()).isTrue();
    robot.interact(() -> window.run(CommandId.PLAY));
  }

  private void untilHeard(boolean heard) {
    String music = project().firstTrack(TrackKind.MUSIC).orElseThrow().id();
    until(
        heard ? "the music is heard" : "the music is silent",
        () -> window.meters().track(music).db(0) > Meters.LOWEST_DB == heard);
  }

  @Test
  void filesThatWereMovedAndRenamedAreFoundInOneStepWithTheirLevels() throws IOException {
    untilOpen();
    untilQuiet();
    untilContentsAreKnown();
    List<?> tracks = project().tracks();
    Path moved = Files.createDirectories(folder.resolve("moved/deep"));
    Path renamed = moved.resolve("another name.mp3");
    Files.move(song().file(), renamed);
    Files.writeString(moved.resolve("harbour-tune.mp3"), "not this one");
    for (String take : List.of("narration-1.flac", "narration-2.flac")) {
      Files.move(folder.resolve(take), moved.resolve(take));
    }
    untilMissing(3);
    assertThat(status()).contains("and 2 more");
    until(
        "all three are said to be silent",
        () -> window.hearing().now().filter(n -> n.unheard().size() == 3).isPresent());
    chosen.next(folder.resolve("moved"));
    until("the Second Ear offers to find them", () -> window.root().lookup("#ear-find") != null);
    robot.interact(() -> this.<ButtonBase>find("ear-find").fire());
    until("they are found", () -> song().file().equals(renamed));
    untilMissing(0);
    assertThat(status()).contains("3 files are found again");
    assertThat(project().shelf()).allMatch(m -> Files.exists(m.file()));
    assertThat(project().tracks()).as("all levels are kept").isEqualTo(tracks);
    robot.interact(() -> window.run(CommandId.UNDO));
    untilMissing(3);
    robot.interact(() -> window.run(CommandId.REDO));
    untilMissing(0);
  }

  @Test
  void whatIsNotThereIsSaid() throws IOException {
    untilOpen();
    untilQuiet();
    Files.delete(song().file());
    untilMissing(1);
    Path empty = Files.createDirectories(folder.resolve("empty"));
    chosen.next(empty);
    robot.interact(() -> window.run(CommandId.FIND_FILES));
    until("it says so", () -> status().contains("None of them is in"));
    assertThat(status()).contains("harbour-tune.mp3");
    String clip = music().clips().getFirst().id();
    robot.interact(() -> window.session().select(new Selection.OfClip(music().id(), clip)));
    chosen.next(folder.resolve("narration-1.flac"));
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.I);
    untilMissing(0);
    assertThat(song().title()).isEqualTo("narration-1.flac");
    assertThat(status()).contains("narration-1.flac is in the place of harbour-tune.mp3");
  }
}

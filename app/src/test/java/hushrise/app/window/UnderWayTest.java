package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.record.Recording;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.sound.SampleSource;
import hushrise.media.FileMixWriter;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** What is under way as another project is opened, or the window closed, is its own project's. */
class UnderWayTest extends WindowTestCase {

  private Path file() {
    return folder.resolve("first-ferry.hushrise");
  }

  private void record() {
    untilOpen();
    press(KeyCode.SHIFT, KeyCode.R);
    Recording recording = window.recording();
    until("the input is open", () -> recording.stateProperty().get() == Recording.State.READY);
    robot.interact(
        () -> {
          recording.countInSecondsProperty().set(0);
          recording.draftsProperty().set(false);
          window.session().seek(60L * RATE);
        });
    press(KeyCode.CONTROL, KeyCode.R);
    until("it records", () -> recording.frames() > RATE / 2);
  }

  private Optional<Media> take() {
    return project().shelf().stream().filter(m -> m.title().contains("take")).findFirst();
  }

  @Test
  void aTakeHasItsPlaceBeforeTheWindowAsksWhetherToSave() {
    record();
    assertThat(window.session().hasUnsavedChanges()).isFalse();
    press(KeyCode.CONTROL, KeyCode.Q);
    answer("Cancel");
    assertThat(window.recording().stateProperty().get()).isEqualTo(Recording.State.READY);
    Media take = take().orElseThrow();
    Clip clip =
        project()
            .voiceTracks()
            .flatMap(t -> t.clips().stream())
            .filter(c -> c.mediaId().equals(take.id()))
            .findFirst()
            .orElseThrow();
    assertClose(clip.startFrame() / (double) RATE, 60, 0.5);
    assertThat(window.session().hasUnsavedChanges()).isTrue();
  }

  @Test
  void anotherProjectGetsNothingOfATakeOrOfAFileThatIsStillBeingRead() {
    record();
    press(KeyCode.CONTROL, KeyCode.N);
    answer("Do not save");
    until("it is empty", () -> project().tracks().stream().allMatch(t -> t.clips().isEmpty()));
    Path song = folder.resolve("harbour-tune.mp3");
    chosen.next(song);
    robot.interact(
        () -> {
          window.run(CommandId.ADD);
          window.open(file());
        });
    untilOpen();
    assertThat(project().shelf()).hasSize(7).extracting(Media::title).doesNotHaveDuplicates();
    assertThat(window.session().undoName()).isEmpty();
    assertThat(take()).isEmpty();
  }

  @Test
  void whatIsDoneWhileAnotherProjectIsReadIsAskedAbout() throws IOException {
    untilOpen();
    Path other = secondFerry();
    robot.interact(
        () -> {
          window.open(other);
          window.session().commit("louder", p -> p.withMasterDb(-1.5));
        });
    answer("Cancel");
    untilQuiet();
    assertThat(window.session().file()).hasValue(file());
    assertThat(project().masterDb()).isEqualTo(-1.5);
    robot.interact(
        () -> {
          window.open(other);
          window.session().learn(p -> p.withName("found out"));
        });
    untilOpened(other);
  }

  @Test
  void anotherProjectWaitsUntilASheetAboutThisOneIsClosed() throws IOException {
    untilOpen();
    Path other = secondFerry();
    robot.interact(
        () -> {
          window.open(other);
          window.run(CommandId.EXPORT);
        });
    untilQuiet();
    assertThat(window.session().file()).hasValue(file());
    assertThat(robot.lookup("#export-start").tryQuery()).isPresent();
    press(KeyCode.ESCAPE);
    untilOpened(other);
  }

  private Path secondFerry() throws IOException {
    return Files.copy(file(), folder.resolve("second-ferry.hushrise"));
  }

  private void untilOpened(Path other) {
    until("the other is open", () -> window.session().file().filter(other::equals).isPresent());
    untilQuiet();
  }

  private Media taken(Path file, boolean places, Runnable then) {
    String name = file.getFileName().toString();
    robot.interact(
        () -> {
          window.take(List.of(file), places);
          then.run();
        });
    until("it is on the Shelf", () -> shelved(name).isPresent());
    untilQuiet();
    return shelved(name).orElseThrow();
  }

  /** A narration at a level of its own, so that no other run has listened to it as a song. */
  private Path wordsNobodyHeard() throws IOException {
    Media narration = shelved("narration-2.flac").orElseThrow();
    SampleSource source = store.samples(narration, RATE);
    int frames = (int) source.lengthFrames();
    float[] sound = new float[frames];
    source.read(0, frames, sound, new float[frames], 0);
    float level = new Random().nextFloat(0.5f, 0.9f);
    for (int i = 0; i < frames; i++) {
      sound[i] *= level;
    }
    Path file = folder.resolve("words.wav");
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_24, RATE)) {
      writer.write(sound, sound, frames);
      writer.finish();
    }
    return file;
  }

  private Optional<Media> shelved(String name) {
    return project().shelf().stream().filter(m -> m.title().equals(name)).findFirst();
  }

  @Test
  void whatGoesToThePlayheadGoesWhereThatWasWhenItWasAskedFor() throws IOException {
    untilOpen();
    robot.interact(() -> window.session().seek(20L * RATE));
    Path file = Files.copy(folder.resolve("ferry-horn.flac"), folder.resolve("second-horn.flac"));
    Media horn = taken(file, true, () -> window.session().seek(60L * RATE));
    assertThat(project().tracks().stream().flatMap(t -> t.clips().stream()))
        .filteredOn(c -> c.mediaId().equals(horn.id()))
        .extracting(Clip::startFrame)
        .containsExactly(20L * RATE);
  }

  @Test
  void aSongThatIsStillListenedToIsPlacedInNoOtherProject() throws IOException {
    untilOpen();
    Media song = taken(wordsNobodyHeard(), false, () -> {});
    robot.interact(
        () -> {
          window.session().commit("kind", p -> ShelfEdits.setKind(p, song.id(), MediaKind.MUSIC));
          window.run(CommandId.SAVE);
          window.run(CommandId.SHELF);
        });
    untilQuiet();
    Path other = secondFerry();
    robot.interact(
        () -> {
          this.<ListView<Media>>find("shelf-list")
              .getSelectionModel()
              .select(shelved("words.wav").orElseThrow());
          this.<ButtonBase>find("item-place").fire();
          window.open(other);
        });
    untilOpened(other);
    assertThat(project().shelf()).hasSize(8);
    assertThat(window.session().undoName()).isEmpty();
  }

  @Test
  void whatWasAskedForLastIsOpened() throws IOException {
    untilOpen();
    Path other = secondFerry();
    robot.interact(
        () -> {
          window.open(other);
          window.run(CommandId.NEW);
        });
    untilQuiet();
    assertThat(window.session().file()).isEmpty();
    assertThat(project().shelf()).isEmpty();
    assertThat(status()).startsWith("This film is new");
    robot.interact(
        () -> {
          window.open(other);
          window.open(file());
        });
    until("one is open", () -> window.session().file().isPresent());
    untilQuiet();
    assertThat(window.session().file()).hasValue(file());
  }

  @Test
  void aRideIsOnTheLineBeforeTheWindowAsksWhetherToSave() {
    untilOpen();
    robot.clickOn("#ride-music");
    press(KeyCode.SPACE);
    until("it plays", () -> window.session().playhead() > RATE / 2);
    hushrise.app.widget.Fader fader = find("fader-music");
    robot.moveTo(fader.localToScreen(fader.xOf(fader.shownDb()), 8));
    robot.press(MouseButton.PRIMARY);
    robot.moveBy(-20, 0);
    long ridden = window.session().playhead();
    until("it was ridden for a while", () -> window.session().playhead() > ridden + RATE);
    int before = keyframes().size();
    robot.interact(() -> window.run(CommandId.QUIT));
    answer("Cancel");
    robot.release(MouseButton.PRIMARY);
    assertThat(keyframes()).hasSizeGreaterThan(before);
    assertThat(window.session().undoName()).hasValue("ride the level");
  }

  @Test
  void voicesAreEvenedBesideTheWork() {
    untilOpen();
    List<Clip> before = project().firstTrack(TrackKind.VOICE).orElseThrow().clips();
    Set<String> moved = Set.of(before.getFirst().id());
    robot.interact(
        () -> {
          window.run(CommandId.VOICES_EVEN);
          window.session().commit("moved", p -> ClipEdits.move(p, moved, RATE, true));
        });
    until("they are", () -> status().contains("LU"));
    List<Clip> after = project().firstTrack(TrackKind.VOICE).orElseThrow().clips();
    assertThat(after.getFirst().startFrame()).isEqualTo(before.getFirst().startFrame() + RATE);
    assertThat(after).extracting(Clip::gainDb).doesNotContain(0.0);
    assertThat(window.session().undoName()).contains("even voices");
  }

  @Test
  void whatWasMeasuredOfAFileThatHasChangedMeanwhileIsNotTaken() {
    untilOpen();
    Media horn = shelved("ferry-horn.flac").orElseThrow();
    int before = window.hearing().library().steps(horn).count();
    robot.interact(
        () -> {
          window.hearing().forget(horn.file());
          WaitForAsyncUtils.sleep(500, TimeUnit.MILLISECONDS); // its measuring ends, untold
          Files.copy(
              folder.resolve("narration-1.flac"), horn.file(), StandardCopyOption.REPLACE_EXISTING);
          window.hearing().forget(horn.file());
          return null;
        });
    untilQuiet();
    assertThat(window.hearing().library().steps(horn).count()).isGreaterThan(2 * before);
  }
}

package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.job.Job;
import hushrise.app.session.Selection;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Span;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.WindowEvent;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Files that are chosen, replaced, changed or missing while the window is open. */
class FilesTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
  }

  private List<Path> files() throws IOException {
    try (Stream<Path> all = Files.list(folder)) {
      return all.sorted().toList();
    }
  }

  private Clip horn() {
    return project().firstTrack(TrackKind.EFFECTS).orElseThrow().clips().getFirst();
  }

  private Media media(String title) {
    return project().shelf().stream()
        .filter(m -> m.title().equals(title))
        .findFirst()
        .orElseThrow();
  }

  private boolean asks() {
    return ((Node) find("sheet")).isVisible();
  }

  @Test
  void anUnnamedProjectIsSuggestedANameThatIsFree() throws IOException {
    Files.writeString(folder.resolve("first-ferry 2.hushrise"), "another project");
    robot.interact(() -> window.session().commit("unnamed", p -> p.withName("")));
    robot.interact(() -> window.session().open(project(), Optional.empty()));
    press(KeyCode.CONTROL, KeyCode.S);
    press(KeyCode.CONTROL, KeyCode.E);
    press(KeyCode.ESCAPE);
    assertThat(chosen.suggestions()).containsExactly(folder.resolve("first-ferry 3.hushrise"));
  }

  @Test
  void aCollectedProjectIsUnpackedBesideItsZipAndOpened() {
    Path zip = folder.resolve("handed over.zip");
    chosen.next(zip);
    robot.interact(() -> window.run(CommandId.COLLECT));
    until("it is collected", () -> status().contains("holds the project and its 7 files"));
    Project before = project();
    robot.interact(() -> window.take(List.of(zip), true));
    Path there = folder.resolve("handed over");
    until(
        "the unpacked project is open",
        () -> window.session().file().filter(f -> f.startsWith(there)).isPresent());
    assertThat(project().tracks()).isEqualTo(before.tracks());
    assertThat(project().shelf()).allMatch(m -> m.file().startsWith(there));
    untilQuiet();
    assertThat(window.files().missingProperty().get()).isEmpty();
  }

  @Test
  void whatWasEditedWhileAZipWasUnpackedIsAskedAbout() {
    Path zip = folder.resolve("handed over.zip");
    chosen.next(zip);
    robot.interact(() -> window.run(CommandId.COLLECT));
    until("it is collected", () -> status().contains("holds the project and its 7 files"));
    robot.interact(
        () -> {
          window.take(List.of(zip), true);
          window.session().commit("meanwhile", p -> p.withName("Meanwhile"));
        });
    until("it is asked about", this::asks);
    press(KeyCode.ESCAPE);
    assertThat(project().name()).isEqualTo("Meanwhile");
    assertThat(window.session().file().orElseThrow().getParent()).isEqualTo(folder);
  }

  @Test
  void aTimelineGoesOutAndComesBackWhole() {
    Path timeline = folder.resolve("for others");
    chosen.next(timeline);
    robot.interact(() -> window.run(CommandId.TIMELINE));
    until("it is written", () -> status().contains("for others.otio holds the tracks"));
    Project before = project();
    robot.interact(() -> window.take(List.of(folder.resolve("for others.otio")), true));
    until("it is open", () -> window.session().file().isEmpty());
    assertThat(project().tracks()).isEqualTo(before.tracks());
    assertThat(asks()).isFalse();
    assertThat(status()).contains("for others.otio is open");
    untilQuiet();
    chosen.next(timeline);
    robot.interact(() -> window.run(CommandId.TIMELINE));
    assertThat(asks()).as("its ending was added, so nobody was asked about it").isTrue();
    press(KeyCode.ESCAPE);
  }

  @Test
  void whatIsNotTakenOverOfAnotherProgramsTimelineIsTold() throws IOException {
    Path timeline =
        Files.writeString(
            folder.resolve("rough cut.otio"),
            """
            {"OTIO_SCHEMA":"Timeline.1","name":"","tracks":{"OTIO_SCHEMA":"Stack.1","children":[
              {"OTIO_SCHEMA":"Track.1","name":"V1","kind":"Video","children":[
                {"OTIO_SCHEMA":"Clip.2","name":"a","source_range":null,"media_references":{"DEFAULT_MEDIA":
                  {"OTIO_SCHEMA":"ExternalReference.1","target_url":"first-ferry.mp4"}}}]},
              {"OTIO_SCHEMA":"Track.1","name":"A1","kind":"Audio","children":[
                {"OTIO_SCHEMA":"Clip.2","name":"b","source_range":null,"media_references":{"DEFAULT_MEDIA":
                  {"OTIO_SCHEMA":"ExternalReference.1","target_url":"harbour-tune.mp3"}}},
                {"OTIO_SCHEMA":"Clip.2","name":"c","source_range":null,"media_references":{"DEFAULT_MEDIA":
                  {"OTIO_SCHEMA":"MissingReference.1"}}}]}]}}
            """);
    robot.interact(() -> window.take(List.of(timeline), true));
    until("it is told", this::asks);
    assertThat(((Node) find("sheet")).lookupAll(".label"))
        .extracting(n -> ((Labeled) n).getText())
        .anyMatch(words -> words.contains("1 clip plays no file of this machine"));
    press(KeyCode.ENTER);
    assertThat(asks()).isFalse();
    assertThat(project().name()).isEqualTo("rough cut");
    assertThat(project().tracks())
        .extracting(t -> t.kind() + " " + t.clips().size())
        .containsExactly("PICTURE 1", "MUSIC 1");
    untilQuiet();
  }

  @Test
  void aNameThatTheDialogDidNotAskAboutIsAskedAboutBeforeItIsReplaced() throws IOException {
    Path old = Files.writeString(folder.resolve("old.hushrise"), "another project");
    chosen.next(folder.resolve("old"));
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.S);
    assertThat(asks()).isTrue();
    press(KeyCode.ESCAPE);
    assertThat(old).hasContent("another project");
    chosen.next(folder.resolve("old"));
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.S);
    press(KeyCode.ENTER);
    assertThat(ProjectFile.load(old).name()).isEqualTo("First Ferry");
  }

  @Test
  void aProjectThatIsCalledAsItsFileIsSoWhereverItIsSaved() {
    robot.interact(() -> window.session().learn(p -> p.withName("first-ferry")));
    Path cut = folder.resolve("final cut.hushrise");
    chosen.next(cut);
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.S);
    assertThat(ProjectFile.load(cut).name()).isEqualTo("final cut");
    assertThat(window.session().hasUnsavedChanges()).isFalse();
    assertThat(project().name()).isEqualTo("final cut");
  }

  @Test
  void anExportWhoseEndingWasAddedAsksBeforeItReplaces() throws IOException {
    Path old = Files.writeString(folder.resolve("mix.wav"), "an older mix");
    export(OutputFormat.WAV_24, folder.resolve("mix"));
    assertThat(sheetTitle()).isEqualTo("There is a file of that name");
    press(KeyCode.ESCAPE);
    assertThat(sheetTitle()).as("what was chosen is still there").isEqualTo("Export");
    assertThat(this.<ComboBox<OutputFormat>>find("export-format").getValue())
        .isEqualTo(OutputFormat.WAV_24);
    untilQuiet();
    assertThat(old).hasContent("an older mix");
    press(KeyCode.ENTER);
    assertThat(sheetTitle()).isEqualTo("There is a file of that name");
    press(KeyCode.ENTER);
    assertThat(asks()).isFalse();
    untilQuiet();
    assertThat(Files.size(old)).isGreaterThan(1_000_000);
  }

  private String sheetTitle() {
    return robot.lookup(".sheet-title").queryLabeled().getText();
  }

  private void askToClose() {
    javafx.stage.Window stage = window.root().getScene().getWindow();
    stage.fireEvent(new WindowEvent(stage, WindowEvent.WINDOW_CLOSE_REQUEST));
  }

  /** Lets the window be asked to close as soon as an export has begun. */
  private void askToCloseOnceItExports() {
    robot.interact(
        () ->
            window
                .jobs()
                .shown()
                .addListener(
                    (ListChangeListener<Job>)
                        c -> {
                          if (c.next() && c.wasAdded()) {
                            Platform.runLater(this::askToClose);
                          }
                        }));
  }

  @Test
  void aQuestionAboutAnExportThatIsLeftOpenClosesTheWindowOnceItIsWritten() throws IOException {
    askToCloseOnceItExports();
    export(OutputFormat.WAV_24, folder.resolve("mix.wav"));
    until("the window is closed", () -> !window.root().getScene().getWindow().isShowing());
    assertThat(Files.size(folder.resolve("mix.wav"))).isGreaterThan(1_000_000);
  }

  @Test
  void aQuestionAboutAnExportThatFailsGoesAndTheWindowStays() throws IOException {
    Path folderGone = Files.createDirectory(folder.resolve("exports"));
    askToCloseOnceItExports();
    robot.interact(
        () ->
            window
                .jobs()
                .shown()
                .addListener((ListChangeListener<Job>) c -> folderGone.toFile().delete()));
    export(OutputFormat.WAV_24, folderGone.resolve("mix.wav"));
    until("it is said that it failed", () -> status().contains("does not exist"));
    until("nobody is asked any more", () -> !asks());
    assertThat(window.root().getScene().getWindow().isShowing()).isTrue();
  }

  @Test
  void closingWhileExportingAsksAndLeavesNoHalfFile() throws IOException {
    List<Path> before = files();
    export(OutputFormat.WEBM, folder.resolve("film.webm"));
    robot.interact(this::askToClose);
    assertThat(asks()).isTrue();
    assertThat(window.root().getScene().getWindow().isShowing()).isTrue();
    press(KeyCode.ENTER);
    until("the window is closed", () -> !window.root().getScene().getWindow().isShowing());
    until("the export has ended", () -> !window.isBusy());
    assertThat(files()).isEqualTo(before);
  }

  @Test
  void aFileThatIsWrittenAnewIsNoticedWithItsNewLengthAndSound() throws IOException {
    robot.interact(() -> window.files().look());
    untilQuiet();
    long before = media("ferry-horn.flac").lengthFrames();
    Path longer = folder.resolve("other.flac");
    Files.copy(folder.resolve("narration-3.flac"), longer);
    Files.move(longer, folder.resolve("ferry-horn.flac"), StandardCopyOption.REPLACE_EXISTING);
    robot.interact(() -> window.files().look());
    until("the new length is known", () -> media("ferry-horn.flac").lengthFrames() != before);
    untilQuiet();
    assertThat(media("ferry-horn.flac").lengthFrames())
        .isEqualTo(media("narration-3.flac").lengthFrames());
    assertThat(status()).contains("ferry-horn.flac");
    assertThat(horn().mediaStartFrame() + horn().lengthFrames())
        .isLessThanOrEqualTo(media("ferry-horn.flac").lengthFrames());
  }

  @Test
  void aFileThatArrivesDuringADragLeavesTheDragGoingOn() throws IOException {
    Files.copy(folder.resolve("ferry-horn.flac"), folder.resolve("horn-2.flac"));
    robot.interact(() -> window.session().habits().snapsProperty().set(false));
    Clip take = project().firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime().getFirst();
    double second = take.startFrame() / (double) RATE;
    robot.moveTo(on("lane-voice", second + 2, -20));
    robot.press(MouseButton.PRIMARY);
    robot.moveTo(on("lane-voice", second + 4, -20));
    robot.interact(() -> window.take(List.of(folder.resolve("horn-2.flac")), false));
    until("it is taken", () -> window.session().present().shelf().size() == 8);
    assertThat(window.session().isDragging()).isTrue();
    robot.moveTo(on("lane-voice", second + 5, -20));
    robot.release(MouseButton.PRIMARY);
    untilQuiet();
    Clip moved = window.session().present().clip(take.id()).orElseThrow();
    assertClose(moved.startFrame() / (double) RATE, second + 3, 0.2);
    assertThat(project().shelf()).hasSize(8);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(window.session().present().clip(take.id())).hasValue(take);
    assertThat(project().shelf()).hasSize(8);
  }

  @Test
  void anUnderscoreInANameIsShown() throws IOException {
    Files.copy(folder.resolve("ferry-horn.flac"), folder.resolve("cold_day_horn.flac"));
    robot.interact(() -> window.take(List.of(folder.resolve("cold_day_horn.flac")), false));
    until("it is taken", () -> project().shelf().size() == 8);
    robot.clickOn("#shelf-button");
    robot.interact(() -> ((TextField) find("shelf-search")).setText("cold"));
    assertThat(
            robot
                .lookup(
                    (Node n) ->
                        n instanceof Labeled l
                            && l.isMnemonicParsing()
                            && l.getText() != null
                            && l.getText().contains("_"))
                .queryAll())
        .isEmpty();
    assertThat(robot.lookup("cold_day_horn.flac").tryQuery()).isPresent();
  }

  @Test
  void theStillsOfThePictureComeByThemselves() {
    Canvas strip = (Canvas) ((Node) find("lane-picture")).lookup("Canvas");
    WritableImage[] shot = new WritableImage[1];
    robot.interact(() -> shot[0] = strip.snapshot(null, null));
    int y = (int) shot[0].getHeight() / 2;
    long colours =
        IntStream.range(100, (int) shot[0].getWidth() - 100)
            .map(x -> shot[0].getPixelReader().getArgb(x, y))
            .distinct()
            .count();
    assertThat(colours).isGreaterThan(40);
  }

  /** A hush of each old passage stays with the new one that stands for it; undone in one step. */
  @Test
  void lookingForSpeechAgainIsOneStepInWhichTheHushesFollow() {
    Clip take = project().firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime().getFirst();
    List<Span> found = media("narration-1.flac").speech().orElseThrow();
    List<Span> byHand =
        found.stream().map(s -> new Span(s.startFrame() + RATE / 5, s.endFrame())).toList();
    robot.interact(
        () -> window.session().commit("by hand", p -> SpeechEdits.set(p, take.mediaId(), byHand)));
    untilQuiet();
    Project before = window.session().present();
    List<Hush> hushes = music().hushes();
    robot.interact(
        () -> {
          window
              .session()
              .select(
                  new Selection.OfClip(
                      project().trackOfClip(take.id()).orElseThrow().id(), take.id()));
          window.run(CommandId.SPEECH_AGAIN);
        });
    untilQuiet();
    assertThat(media("narration-1.flac").speech()).hasValue(found);
    assertThat(music().hushes()).hasSameSizeAs(hushes);
    assertThat(music().hushes().getFirst().startFrame()).isLessThan(hushes.getFirst().startFrame());
    assertThat(music().hushes().getFirst().depthDb()).isEqualTo(hushes.getFirst().depthDb());
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(window.session().present()).isEqualTo(before);
  }

  @Test
  void whatIsOnTheTimelineTwiceIsMeasuredOnceAndUndoIsExact() {
    Project before = window.session().present();
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "shorter", p -> ClipEdits.trimEnd(p, horn().id(), horn().endFrame() - RATE)));
    robot.interact(
        () ->
            window
                .session()
                .commit("gone", p -> ShelfEdits.remove(p, media("ferry-horn.flac").id())));
    press(KeyCode.CONTROL, KeyCode.Z);
    press(KeyCode.CONTROL, KeyCode.Z);
    untilQuiet();
    assertThat(window.session().present()).isEqualTo(before);
    assertThat(window.hearing().now().orElseThrow().project()).isEqualTo(before);
  }
}

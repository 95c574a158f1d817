package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Aside;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.geometry.Orientation;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.IndexedCell;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.TextField;
import javafx.scene.control.skin.VirtualFlow;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** The Second Ear and the separation strip, in the window. */
class SecondEarWindowTest extends HeardTestCase {

  private void untilPeakIsLookedFor() {
    until("the peak is known", () -> rules().contains("mix.peak"));
  }

  /** The first row of a list that is shown; -1 while none is. */
  private static int firstShown(ListView<?> list) {
    VirtualFlow<?> rows = (VirtualFlow<?>) list.lookup(".virtual-flow");
    return Optional.ofNullable(rows.getFirstVisibleCell()).map(IndexedCell::getIndex).orElse(-1);
  }

  @Test
  void theListOfPassagesStaysWhereItWasScrolledTo() {
    untilOpen();
    List<Span> spoken =
        IntStream.range(0, 9).mapToObj(i -> Span.ofLength(at(i), RATE / 2)).toList();
    commit(
        p ->
            p.withShelf(
                p.shelf().stream()
                    .map(m -> m.speech().isEmpty() ? m : m.withSpeech(Optional.of(spoken)))
                    .toList()));
    robot.clickOn("#tab-passages");
    ListView<?> list = find("passages");
    assertThat(list.getItems()).hasSizeGreaterThan(20);
    robot.interact(() -> list.scrollTo(15));
    until("it is scrolled", () -> firstShown(list) == 15);
    Object told = list.getItems().getLast();
    commit(p -> LevelEdits.setTrackLevel(p, music().id(), -4));
    until("it tells what was done", () -> !list.getItems().getLast().equals(told));
    until("it is where it was", () -> firstShown(list) == 15);
    for (int i = 0; i < 20; i++) {
      robot.interact(
          () -> {
            list.requestLayout();
            window.root().layout();
          });
    }
    for (ScrollBar bar :
        list.lookupAll(".scroll-bar").stream().map(ScrollBar.class::cast).toList()) {
      assertThat(bar.isVisible()).isEqualTo(bar.getOrientation() == Orientation.VERTICAL);
    }
    double right = list.localToScene(list.getLayoutBounds()).getMaxX();
    for (Node words : list.lookupAll(".number")) {
      assertThat(words.localToScene(words.getLayoutBounds()).getMaxX()).isLessThan(right);
    }
  }

  private String whyNone() {
    return this.<Labeled>find("passages-none").getText();
  }

  @Test
  void whyThereIsNoPassageIsSaid() {
    untilOpen();
    untilHeard();
    robot.clickOn("#tab-passages");
    robot.interact(
        () -> {
          window.hearing().measureAgain();
          assertThat(whyNone()).startsWith("Listening");
        });
    untilHeard();
    assertThat(robot.lookup("#passages-none").tryQuery()).isEmpty();
    String voice = project().firstTrack(TrackKind.VOICE).orElseThrow().id();
    commit(p -> p.withTrack(voice, t -> t.withMuted(true)));
    untilHeard();
    assertThat(whyNone()).startsWith("None of the narration");
    commit(p -> p.withTrack(voice, t -> t.withClips(List.of())));
    untilHeard();
    assertThat(whyNone()).startsWith("No narration yet");
  }

  @Test
  void pointingAtARemedyShowsItAndLeavesNoTrace() {
    untilOpen();
    untilHeard();
    Project before = project();
    robot.moveTo("#remedy-voices-uneven");
    until("the remedy is shown", () -> window.session().isShowingOther());
    assertThat(window.session().present()).isEqualTo(before);
    robot.moveTo("#tab-passages");
    until("it is gone", () -> !window.session().isShowingOther());
    assertThat(project()).isEqualTo(before);
    assertThat(window.session().undoName()).isEmpty();
  }

  /** As when speech is found anew during it: then nothing else tells that there is more to hear. */
  @Test
  void whatChangedDuringADragThatMovedNothingIsJudgedAfterIt() {
    untilOpen();
    untilHeard();
    robot.interact(() -> window.session().drag("nowhere", p -> p));
    commit(p -> HushEdits.withoutHushes(p));
    until(
        "it is heard",
        () -> window.hearing().now().filter(n -> n.project().equals(project())).isPresent());
    robot.interact(() -> window.session().endDrag());
    until(
        "it is judged",
        () ->
            window.hearing().now().stream()
                .flatMap(n -> n.findings().stream())
                .anyMatch(f -> f.rule().equals("passage.buried")));
  }

  @Test
  void aRemedyWithALongNameStaysInThePane() throws IOException {
    untilOpen();
    String id = music().clips().getFirst().mediaId();
    Path song = project().media(id).orElseThrow().file();
    Path named =
        folder.resolve("03 - the river band - a song about the ferry that has a long title.mp3");
    Files.copy(song, named);
    commit(p -> ShelfEdits.setCredit(ShelfEdits.relink(p, Map.of(id, named)), id, ""));
    Node pane = find("second-ear");
    until(
        "the remedy is within the pane",
        () -> {
          Node remedy = window.root().lookup("#remedy-media-noCredit");
          return remedy != null
              && remedy.getBoundsInParent().getMaxX() > 100
              && remedy.localToScene(remedy.getLayoutBounds()).getMaxX()
                  <= pane.localToScene(pane.getLayoutBounds()).getMaxX();
        });
  }

  @Test
  void aFindingIsPutAsideWithItsReasonAndTakenUpAgain() {
    untilOpen();
    untilHeard();
    press(KeyCode.J);
    press(KeyCode.Y);
    TextField why = find("aside-why");
    robot.clickOn(why).write("one of them whispers").push(KeyCode.ENTER);
    untilHeard();
    assertThat(rules()).isEmpty();
    assertThat(project().asides())
        .extracting(Aside::reason)
        .containsExactly("one of them whispers");
    Button back = find("back-voices-uneven");
    robot.interact(back::fire);
    untilHeard();
    assertThat(rules()).containsExactly("voices.uneven");
  }

  @Test
  void thePeakIsFoundOnceNothingChangesForAWhile() {
    untilOpen();
    commit(p -> p.withMasterDb(9));
    untilPeakIsLookedFor();
    Button lower = find("remedy-mix-peak");
    robot.interact(lower::fire);
    untilHeard();
    until("the peak is fine", () -> !rules().contains("mix.peak"));
    assertThat(project().masterDb()).isLessThan(9);
  }

  @Test
  void theStripTellsTheNumberAndGoesToTheWorstPassage() {
    untilOpen();
    untilHeard();
    Hush third = music().hushes().get(2);
    commit(p -> LevelEdits.setHushDepth(p, third.id(), -1));
    Labeled worst = find("separation-worst");
    double lu =
        window.hearing().now().orElseThrow().separation().worst().orElseThrow().separationLu();
    assertThat(lu).isLessThan(5);
    assertThat(worst.getText()).isEqualTo("worst %.1f LU".formatted(lu));
    robot.clickOn(worst);
    assertThat(window.session().playhead()).isEqualTo(third.startFrame());
    robot.interact(() -> window.session().seek(third.startFrame() + RATE));
    assertThat(((Labeled) find("separation-figure")).getText()).endsWith("LU");
    robot.interact(() -> window.session().seek(RATE));
    assertThat(((Labeled) find("separation-figure")).getText()).isEqualTo("\u2013");
    Node strip = find("separation");
    robot.clickOn(strip);
    assertThat(window.session().playhead()).isNotEqualTo(RATE);
    robot.clickOn("#tab-passages");
    assertThat(robot.lookup(".passage").queryAll()).hasSize(4);
  }

  @Test
  void aFileThatIsGoneIsSaidOnceAndNotAfterEveryEdit() throws IOException {
    untilOpen();
    Path without = Files.createDirectory(folder.resolve("without"));
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        if (!file.endsWith("ferry-horn.flac")) {
          Files.copy(file, without.resolve(file.getFileName()));
        }
      }
    }
    robot.interact(() -> window.open(without.resolve("first-ferry.hushrise")));
    until("the copy is open", () -> window.session().file().orElseThrow().startsWith(without));
    untilQuiet();
    assertThat(status()).contains("ferry-horn.flac");
    assertThat(window.hearing().now().orElseThrow().unheard())
        .extracting(Media::title)
        .containsExactly("ferry-horn.flac");
    assertThat(robot.lookup("#ear-again").tryQuery()).isPresent();
    robot.interact(() -> window.say("quiet"));
    robot.interact(() -> window.session().commit("lower", p -> p.withMasterDb(-1)));
    untilQuiet();
    robot.sleep(1_500);
    untilQuiet();
    assertThat(status()).doesNotContain("ferry-horn.flac");
  }

  /** After a press the list moves up: a remedy that comes to lie under the pointer does nothing. */
  @Test
  void aRemedyThatComesToLieUnderARestingPointerShowsNothingUntilItIsPointedAt() {
    untilOpen();
    untilHeard();
    robot.moveTo("#remedy-voices-uneven");
    until("it is previewed", () -> window.session().isShowingOther());
    robot.moveTo("#meters");
    until("it is as before", () -> !window.session().isShowingOther());
    commit(p -> p.withTrack(music().id(), t -> t.withMuted(true)));
    Node remedy = find("remedy-track-muted");
    robot.moveTo(remedy);
    until("it is previewed", () -> window.session().isShowingOther());
    robot.clickOn(remedy);
    untilHeard();
    robot.sleep(400);
    untilQuiet();
    assertThat(window.session().isShowingOther()).as("nobody pointed at anything").isFalse();
    assertThat(project()).isEqualTo(window.session().present());
    robot.moveBy(1, 1);
    robot.moveTo("#remedy-voices-uneven");
    until("it is previewed", () -> window.session().isShowingOther());
  }

  @Test
  void cancellingOneMeasurementLeavesTheRestHeardAndItCanBeMeasuredAgain() throws IOException {
    untilOpen();
    untilHeard();
    String horn = "ferry-horn.flac";
    Path gone = folder.resolve(horn);
    Path aside = folder.resolve("aside.flac");
    Files.move(gone, aside);
    robot.interact(() -> window.hearing().forget(gone));
    untilHeard();
    robot.interact(() -> window.session().commit("lower", p -> p.withMasterDb(-1)));
    untilHeard();
    until(
        "the horn alone is unheard",
        () ->
            window.hearing().now().stream()
                .anyMatch(
                    n ->
                        n.unheard().stream().map(Media::title).toList().equals(List.of(horn))
                            && n.separation().worst().isPresent()));
    Files.move(aside, gone);
    robot.clickOn("#ear-again");
    until(
        "all is heard",
        () -> window.hearing().now().filter(n -> n.unheard().isEmpty()).isPresent());
    until("nothing is left to do again", () -> window.root().lookup("#ear-again") == null);
  }

  @Test
  void aPeakIsNotRemarkedOnWhenItsFilmIsGone() {
    untilOpen();
    commit(p -> p.withMasterDb(9));
    untilPeakIsLookedFor();
    commit(p -> p.withTracks(List.of()));
    assertThat(rules()).isEmpty();
    press(KeyCode.CONTROL, KeyCode.Z);
    untilPeakIsLookedFor();
  }
}

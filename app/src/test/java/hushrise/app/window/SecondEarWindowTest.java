package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.core.ear.Finding;
import hushrise.core.ear.SecondEar;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.LoudMusic;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Aside;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import hushrise.media.FileMixWriter;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntToDoubleFunction;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.skin.VirtualFlow;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** The Second Ear and the separation strip, in the window. */
class SecondEarWindowTest extends WindowTestCase {

  private List<Finding> open() {
    return window
        .hearing()
        .now()
        .map(n -> SecondEar.open(n.findings(), project()))
        .orElse(List.of());
  }

  private List<String> rules() {
    return open().stream().map(Finding::rule).toList();
  }

  private void untilHeard() {
    untilQuiet();
    until(
        "the present project is heard",
        () -> window.hearing().now().filter(n -> n.project().equals(project())).isPresent());
  }

  private void commit(UnaryOperator<Project> edit) {
    robot.interact(() -> window.session().commit("worse", edit));
    untilHeard();
  }

  private void untilPeakIsLookedFor() {
    until("the peak is known", () -> rules().contains("mix.peak"));
  }

  /** The demo with its one remark mended: nothing is left to find. */
  private void clean() {
    untilOpen();
    untilHeard();
    assertThat(rules()).containsExactly("voices.uneven");
    robot.clickOn("#remedy-voices-uneven");
    untilHeard();
    robot.interact(() -> window.run(CommandId.HUSH_ALL));
    untilQuiet();
    press(KeyCode.ENTER);
    untilHeard();
    assertThat(rules()).isEmpty();
  }

  private String song() {
    return music().clips().getFirst().id();
  }

  private static long at(double seconds) {
    return Math.round(seconds * RATE);
  }

  private Project withLine(Project project, double... secondsAndDb) {
    List<Keyframe> keyframes = new java.util.ArrayList<>();
    for (int i = 0; i < secondsAndDb.length; i += 2) {
      keyframes.add(new Keyframe(at(secondsAndDb[i]), secondsAndDb[i + 1], SegmentShape.SMOOTH));
    }
    return project.withTrack(music().id(), t -> t.withLine(LevelLine.of(keyframes)));
  }

  /** For each rule an edit that makes the clean demo worse by it. */
  private Map<String, UnaryOperator<Project>> worsened() {
    Hush first = music().hushes().getFirst();
    String music = music().id();
    List<Clip> takes = project().firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime();
    Map<String, UnaryOperator<Project>> all = new LinkedHashMap<>();
    all.put("passage.buried", p -> LevelEdits.setHushDepth(p, first.id(), -2));
    all.put("hush.late", p -> HushEdits.setTurn(p, first.id(), t -> t.withLead(-0.6)));
    all.put("hush.early", p -> HushEdits.setTurn(p, first.id(), t -> t.withTail(-0.6)));
    all.put(
        "music.short",
        p -> {
          Project free = hushrise.core.fit.Fits.remove(p, song());
          return ClipEdits.trimEnd(free, song(), at(80));
        });
    all.put(
        "music.long",
        p -> ClipEdits.move(hushrise.core.fit.Fits.remove(p, song()), Set.of(song()), at(6), true));
    all.put("music.noFade", p -> FadeEdits.setOut(p, song(), 0));
    all.put("music.abrupt", p -> FadeEdits.setIn(p, song(), 0));
    all.put("hush.alone", p -> HushEdits.add(p, music, Hush.over(new Span(at(17), at(19)), -6)));
    all.put(
        "hush.pumping",
        p -> HushEdits.add(p, music, Hush.over(second(first.endFrame() + at(1.5)), -12)));
    all.put(
        "voices.atOnce",
        p ->
            ClipEdits.move(
                p,
                Set.of(takes.get(1).id()),
                takes.get(0).endFrame() - takes.get(1).startFrame() - at(3),
                true));
    all.put("line.idleDip", p -> withLine(p, 17, 0, 17.5, -9, 19, -9, 20, 0));
    all.put("line.stray", p -> withLine(p, 5, 0, 5.5, -5, 10, -3, 10.5, 0));
    all.put("voices.uneven", p -> ClipEdits.setGain(p, Set.of(takes.get(1).id()), 6));
    all.put(
        "songs.uneven",
        p -> {
          Project free = hushrise.core.fit.Fits.remove(p, song());
          Project split = ClipEdits.split(free, Set.of(song()), at(40));
          String second = split.track(music).orElseThrow().clipsInTime().getLast().id();
          return ClipEdits.setGain(split, Set.of(second), -6);
        });
    all.put("music.overVoice", p -> LoudMusic.lower(p, -9));
    all.put("track.muted", p -> p.withTrack(music, t -> t.withMuted(true)));
    all.put("track.soloed", p -> p.withTrack(takesTrack(), t -> t.withSoloed(true)));
    all.put(
        "media.noCredit", p -> ShelfEdits.setCredit(p, music().clips().getFirst().mediaId(), ""));
    all.put(
        "rise.underSpeech",
        p ->
            HushEdits.addRise(
                p.withTrack(music, t -> t.withHushes(List.of()).withLevelDb(-30)),
                music,
                new Rise("r", at(3), at(12), 3, 1, 1)));
    return all;
  }

  private static Span second(long from) {
    return new Span(from, from + RATE);
  }

  /** Brings an effect of three seconds into the film, made by the frame. */
  private void bring(String name, IntToDoubleFunction left, IntToDoubleFunction right)
      throws IOException {
    Path file = folder.resolve(name);
    float[][] sound = new float[2][3 * RATE];
    for (int i = 0; i < sound[0].length; i++) {
      sound[0][i] = (float) left.applyAsDouble(i);
      sound[1][i] = (float) right.applyAsDouble(i);
    }
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_16, RATE)) {
      writer.write(sound[0], sound[1], sound[0].length);
      writer.finish();
    }
    robot.interact(() -> window.session().seek(at(36)));
    robot.interact(() -> window.take(List.of(file), true));
    untilHeard();
  }

  private static double tone(int frame) {
    return 0.1 * Math.sin(2 * Math.PI * 220 * frame / RATE);
  }

  @Test
  void aClipThatSoundsOnOneSideIsPutOnBoth() throws IOException {
    clean();
    bring("half.wav", SecondEarWindowTest::tone, i -> 0);
    assertThat(rules()).contains("clip.oneSided");
    robot.interact(() -> ((Button) find("remedy-clip-oneSided")).fire());
    untilHeard();
    assertThat(rules()).doesNotContain("clip.oneSided");
    robot.interact(() -> window.session().undo());
    untilHeard();
    assertThat(rules()).contains("clip.oneSided");
  }

  @Test
  void aClippedSoundCanBeMarkedOrMadeSofter() throws IOException {
    clean();
    IntToDoubleFunction clipped = i -> Math.clamp(12 * tone(i), -1, 1);
    bring("clipped.wav", clipped, clipped);
    Finding finding =
        open().stream().filter(f -> f.rule().equals("clip.clipped")).findFirst().orElseThrow();
    int markers = project().markers().size();
    robot.interact(() -> ((Button) find("remedy-clip-clipped")).fire());
    untilHeard();
    assertThat(project().markers()).hasSize(markers + 1);
    robot.interact(() -> window.session().undo());
    untilHeard();
    robot.interact(() -> ((Button) find("remedy-clip-clipped-1")).fire());
    untilHeard();
    assertThat(project().clip(finding.subject()).orElseThrow().gainDb()).isEqualTo(-3);
  }

  private String takesTrack() {
    return project().firstTrack(TrackKind.VOICE).orElseThrow().id();
  }

  @Test
  void everyRemedyIsOneStepThatMendsItsFinding() {
    clean();
    Project before = project();
    worsened()
        .forEach(
            (rule, edit) -> {
              commit(edit);
              Project worse = project();
              assertThat(rules()).as(rule).contains(rule);
              Finding finding =
                  open().stream().filter(f -> f.rule().equals(rule)).findFirst().orElseThrow();
              int count = finding.remedies().size();
              assertThat(count).as(rule).isBetween(1, 2);
              for (int i = 0; i < count; i++) {
                String id = "remedy-" + rule.replace('.', '-') + (i == 0 ? "" : "-" + i);
                Button button = find(id);
                robot.interact(button::fire);
                untilHeard();
                assertThat(rules()).as("%s by remedy %d", rule, i).doesNotContain(rule);
                robot.interact(() -> window.session().undo());
                assertThat(project()).as(rule).isEqualTo(worse);
                untilHeard();
              }
              robot.interact(() -> window.session().undo());
              assertThat(project()).isEqualTo(before);
              untilHeard();
            });
  }

  @Test
  void fiveThingsMadeWorseAreAllFoundAndMendedByKeys() {
    clean();
    Map<String, UnaryOperator<Project>> worse = worsened();
    List<String> five =
        List.of("passage.buried", "music.noFade", "hush.alone", "line.stray", "media.noCredit");
    for (String rule : five) {
      commit(worse.get(rule));
    }
    assertThat(rules()).containsAll(five);
    for (int i = 0; i < 12 && !open().isEmpty(); i++) {
      press(KeyCode.J);
      press(KeyCode.V);
      untilHeard();
    }
    assertThat(rules()).isEmpty();
    assertThat(((Labeled) find("tab-findings")).getText()).isEqualTo("Second Ear");
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
    VirtualFlow<?> rows = robot.from(list).lookup(".virtual-flow").query();
    assertThat(list.getItems()).hasSizeGreaterThan(20);
    robot.interact(() -> list.scrollTo(15));
    until("it is scrolled", () -> rows.getFirstVisibleCell() != null);
    int first = rows.getFirstVisibleCell().getIndex();
    assertThat(first).isGreaterThan(9);
    Object told = list.getItems().getLast();
    commit(p -> LevelEdits.setTrackLevel(p, music().id(), -4));
    until("it tells what was done", () -> !list.getItems().getLast().equals(told));
    assertThat(rows.getFirstVisibleCell().getIndex()).isEqualTo(first);
  }

  @Test
  void theFindingThatKeysGoToIsInView() {
    clean();
    Map<String, UnaryOperator<Project>> worse = worsened();
    for (String rule : List.of("music.noFade", "hush.alone", "line.stray", "media.noCredit")) {
      commit(worse.get(rule));
    }
    int count = open().size();
    assertThat(count).isGreaterThan(3);
    for (int i = 0; i <= count; i++) {
      press(KeyCode.J);
      Node row = robot.lookup("#second-ear .finding.chosen").query();
      Node list = robot.lookup("#second-ear .viewport").query();
      Bounds seen = list.localToScreen(list.getBoundsInLocal());
      Bounds at = row.localToScreen(row.getBoundsInLocal());
      assertThat(at.getMinY()).isBetween(seen.getMinY() - 1, seen.getMaxY());
      assertThat(at.getMaxY()).isBetween(seen.getMinY(), seen.getMaxY() + 1);
    }
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
  void voicesAreEvenedByOneKey() {
    untilOpen();
    untilHeard();
    press(KeyCode.SHIFT, KeyCode.E);
    untilHeard();
    assertThat(status()).isEqualTo("The voices now lie 0.0 LU apart.");
    assertThat(rules()).doesNotContain("voices.uneven");
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
    Path gone = folder.resolve("ferry-horn.flac");
    Path aside = folder.resolve("aside.flac");
    Files.move(gone, aside);
    robot.interact(() -> window.hearing().forget(gone));
    untilHeard();
    robot.interact(() -> window.session().commit("lower", p -> p.withMasterDb(-1)));
    untilHeard();
    assertThat(window.hearing().now().orElseThrow().unheard())
        .extracting(Media::title)
        .containsExactly("ferry-horn.flac");
    assertThat(window.hearing().now().orElseThrow().separation().worst()).isPresent();
    Files.move(aside, gone);
    robot.clickOn("#ear-again");
    untilHeard();
    assertThat(window.hearing().now().orElseThrow().unheard()).isEmpty();
    assertThat(robot.lookup("#ear-again").tryQuery()).isEmpty();
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

  /** The narration as the film's own sound: nobody has said that it is the voice. */
  @Test
  void talkInTheFilmsOwnSoundIsFoundAndMadeTheVoice() {
    untilOpen();
    String narration = project().firstTrack(TrackKind.VOICE).orElseThrow().id();
    commit(
        p ->
            p.withShelf(p.shelf().stream().map(m -> m.withSpeech(Optional.empty())).toList())
                .withTrack(narration, t -> t.withKind(TrackKind.CAMERA))
                .withTrack(music().id(), t -> t.withHushes(List.of())));
    press(KeyCode.SHIFT, KeyCode.H);
    assertThat(status()).contains("no narration", "make it the voice");
    until("somebody is heard to speak", () -> rules().contains("camera.speaks"));
    robot.clickOn("#remedy-camera-speaks");
    assertThat(project().track(narration).orElseThrow().isVoice()).isTrue();
    until("the voice is buried now", () -> rules().contains("passage.buried"));
    assertThat(rules()).doesNotContain("camera.speaks");
    press(KeyCode.SHIFT, KeyCode.H);
    until("hushes are drafted", () -> window.session().draft().isPresent());
  }
}

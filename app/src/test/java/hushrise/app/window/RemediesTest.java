package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.ear.Finding;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.media.FileMixWriter;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntToDoubleFunction;
import java.util.function.UnaryOperator;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What the Second Ear finds is mended by its remedies, in the window. */
@Tag(WindowTestCase.ANY_PLATFORM)
class RemediesTest extends HeardTestCase {

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
    bring("half.wav", RemediesTest::tone, i -> 0);
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
  void voicesAreEvenedByOneKey() {
    untilOpen();
    untilHeard();
    press(KeyCode.SHIFT, KeyCode.E);
    untilHeard();
    assertThat(status()).isEqualTo("The voices now lie 0.0 LU apart.");
    assertThat(rules()).doesNotContain("voices.uneven");
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
    untilHeard();
    robot.interact(() -> ((Button) find("remedy-camera-speaks")).fire());
    assertThat(project().track(narration).orElseThrow().isVoice()).isTrue();
    until("the voice is buried now", () -> rules().contains("passage.buried"));
    assertThat(rules()).doesNotContain("camera.speaks");
    press(KeyCode.SHIFT, KeyCode.H);
    until("hushes are drafted", () -> window.session().draft().isPresent());
  }
}

package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Devices;
import hushrise.media.StandInDevices;
import java.util.ArrayList;
import java.util.List;
import java.util.prefs.BackingStoreException;
import java.util.prefs.Preferences;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The rehearsal surface's faders move the tracks', several at once. */
@Tag(WindowTestCase.ANY_PLATFORM)
class SurfaceTest extends WindowTestCase {

  private static final String STEP = "set track level";

  private final List<Slider> faders = new ArrayList<>();

  @Override
  Devices devices() {
    return new StandInDevices();
  }

  @BeforeEach
  void takeTheSurface() {
    untilOpen();
    robot.interact(() -> window.run(CommandId.SURFACE));
    press(KeyCode.ENTER);
    for (int i = 0; i < 4; i++) {
      faders.add(find("rehearsal-fader-" + i));
    }
    press(KeyCode.ESCAPE);
  }

  private Track voice() {
    return project().firstTrack(TrackKind.VOICE).orElseThrow();
  }

  private void learn(int fader, Track track) {
    robot.interact(
        () -> {
          window.session().select(new Selection.OfTrack(track.id()));
          window.run(CommandId.SURFACE_LEARN);
          faders.get(fader).setValue(faders.get(fader).getValue() - 0.1);
        });
    until("it is learned", () -> status().contains("from now on"));
  }

  private void move(int fader, double to) {
    robot.interact(() -> faders.get(fader).setValue(to));
  }

  private void untilAtRest() {
    until("nothing is dragged", () -> !window.session().draggingProperty().get());
  }

  @Test
  void aFaderIsLearnedAndSetsTheTracksLevelInOneStep() {
    learn(3, music());
    move(3, 0.5);
    move(3, 0.4);
    until("the level is shown", () -> music().levelDb() < -15);
    untilAtRest();
    assertThat(window.session().undoName()).hasValue(STEP);
    robot.interact(() -> window.session().undo());
    assertThat(music().levelDb()).isZero();
    move(2, 0.4);
    until("it is said", () -> status().contains("no track's yet"));
  }

  @Test
  void twoFadersAtOnceMoveTheirTracksEach() {
    learn(0, music());
    learn(1, voice());
    move(0, 0.5);
    move(1, 0.4);
    until("both are shown", () -> music().levelDb() < -8 && voice().levelDb() < -15);
    double musicDb = music().levelDb();
    double voiceDb = voice().levelDb();
    untilAtRest();
    assertThat(music().levelDb()).isEqualTo(musicDb);
    assertThat(voice().levelDb()).isEqualTo(voiceDb);
    robot.interact(() -> window.session().undo());
    assertThat(window.session().undoName()).as("each is a step").hasValue(STEP);
    robot.interact(() -> window.session().undo());
    assertThat(List.of(music().levelDb(), voice().levelDb())).containsOnly(0.0);
  }

  @Test
  void aFaderThatMovesWhileThePointerDragsDisturbsNeither() {
    learn(1, voice());
    ctrlClick(70, -10);
    dragHolding(
        Held.NOTHING,
        "lane-music",
        on(70, 0),
        on(70, -30),
        () -> {
          move(1, 0.4);
          until(
              "the fader's step is made",
              () -> window.session().undoName().filter(STEP::equals).isPresent());
          assertThat(window.session().isDragging()).isTrue();
        });
    assertThat(keyframes()).hasSize(1);
    assertThat(keyframes().getFirst().levelDb()).isBetween(-32.0, -28.0);
    assertThat(voice().levelDb()).isLessThan(-15);
  }

  @Test
  void aRideThatBeginsWhileAFaderMovesLeavesNothingHeld() {
    learn(0, music());
    robot.interact(() -> window.transport().riders().toggle(music().id()));
    move(0, 0.5);
    press(KeyCode.SPACE);
    until("the track is ridden", () -> window.transport().riders().isRiding(music().id()));
    untilAtRest();
    robot.interact(() -> window.transport().stop());
    untilQuiet();
    assertThat(music().levelDb()).isLessThan(-8);
  }

  @Test
  void whatWasLearnedInAnotherProjectMovesTheTrackInTheSamePlace() throws BackingStoreException {
    Preferences kept = Preferences.userRoot().node("surface-test");
    kept.put("set.surface-faders", "2 MUSIC 0, 3 VOICE 7");
    try {
      robot.interact(() -> window.remembered(kept).restore());
      move(3, 0.4);
      until("it is said", () -> status().contains("no track's yet"));
      move(2, 0.4);
      until("the level is shown", () -> music().levelDb() < -15);
      untilAtRest();
    } finally {
      kept.removeNode();
    }
  }
}

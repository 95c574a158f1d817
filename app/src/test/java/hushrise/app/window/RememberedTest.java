package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import hushrise.app.command.CommandId;
import hushrise.app.job.Messages;
import hushrise.app.play.SurfaceRides;
import hushrise.app.record.Background;
import hushrise.core.project.Project;
import hushrise.core.sound.Devices;
import hushrise.media.StandInDevices;
import java.util.List;
import java.util.concurrent.TimeoutException;
import java.util.prefs.BackingStoreException;
import java.util.prefs.Preferences;
import javafx.scene.control.ComboBox;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;

/** What was set in the window the last time is set again. */
@Tag(WindowTestCase.ANY_PLATFORM)
class RememberedTest extends WindowTestCase {

  private final Preferences kept = Preferences.userRoot().node("remembered-test");

  @AfterEach
  void forget() throws BackingStoreException {
    kept.removeNode();
  }

  @Override
  boolean opensDemo() {
    return false;
  }

  @Override
  Devices devices() {
    return new StandInDevices();
  }

  /** Sets what can be set, as the last time. */
  private void setOtherwise() {
    window.session().habits().snapsProperty().set(false);
    window.session().habits().hotDbProperty().set(-9);
    window.recording().backgroundProperty().set(Background.OFF);
    window.recording().countInSecondsProperty().set(5);
    window.run(CommandId.HEADS_NARROW);
    window.run(CommandId.RIDE_AFTER);
  }

  private void assertOtherwise(boolean is) {
    assertThat(window.session().habits().snapsProperty().get()).isNotEqualTo(is);
    assertThat(window.session().habits().hotDbProperty().get()).isEqualTo(is ? -9 : -6);
    assertThat(window.recording().backgroundProperty().get())
        .isEqualTo(is ? Background.OFF : Background.LOWERED);
    assertThat(window.recording().countInSecondsProperty().get()).isEqualTo(is ? 5 : 3);
    assertThat(window.view().headWidthProperty().get()).isEqualTo(is ? 92 : 200);
    assertThat(window.transport().riders().ruleProperty().get().glides()).isEqualTo(is);
  }

  /** Another window, as after a start. */
  private void startAgain() throws TimeoutException {
    close();
    FxToolkit.registerPrimaryStage();
    FxToolkit.setupStage(this::show);
    robot.interact(() -> window.remembered(kept).restore());
  }

  @Test
  void whatWasSetIsSetAgain() throws TimeoutException {
    robot.interact(
        () -> {
          Remembered remembered = window.remembered(kept);
          remembered.restore();
          setOtherwise();
          remembered.keep();
        });
    startAgain();
    robot.interact(() -> assertOtherwise(true));
    robot.interact(() -> window.run(CommandId.RECORDER));
    assertThat(this.<ComboBox<Integer>>find("recorder-count").getValue()).isEqualTo(5);
  }

  @Test
  void theNumbersOfASafeLevelAndTheOutputTooOnlyWhenTheyWereChosen() throws TimeoutException {
    robot.interact(
        () -> {
          Remembered remembered = window.remembered(kept);
          remembered.restore();
          remembered.keep();
        });
    assertThat(kept.get("set.output", "none")).isEqualTo("none");
    assertThat(kept.get("set.safe-VOICE", "none")).isEqualTo("none");
    String output = devices().outputs().getLast();
    robot.interact(
        () -> {
          Remembered remembered = window.remembered(kept);
          remembered.restore();
          window
              .transport()
              .loudspeaker()
              .chooseOutput(devices().output(output, Project.DEFAULT_SAMPLE_RATE));
          remembered.keep();
        });
    assertThat(kept.get("set.output", "none")).isEqualTo(output);
    startAgain();
    assertThat(window.transport().loudspeaker().chosenOutput()).hasValue(output);
  }

  @Test
  void aDeviceThatFailsKeepsNoWindowFromOpening() {
    Devices failing = mock(Devices.class);
    when(failing.outputs()).thenReturn(List.of("failing"));
    when(failing.output(anyString(), anyInt())).thenThrow(new IllegalStateException("driver"));
    kept.put("set.output", "failing");
    robot.interact(
        () -> new Remembered(kept).output(window.transport().loudspeaker(), failing).restore());
    assertThat(window.transport().loudspeaker().chosenOutput()).isEmpty();
  }

  @Test
  void whatTheFadersOfASurfaceHaveLearnedIsKnownAgain() {
    assertThat(learnedAfter("7 MUSIC 0, 130 VOICE 1")).isEqualTo("7 MUSIC 0, 130 VOICE 1");
    assertThat(learnedAfter("7 MUSIC 0, 8 NOISE 1")).isEmpty();
    assertThat(learnedAfter("seven")).isEmpty();
  }

  private String learnedAfter(String words) {
    kept.put("set.surface-faders", words);
    SurfaceRides rides =
        new SurfaceRides(window.session(), window.transport().riders(), mock(Messages.class));
    robot.interact(() -> new Remembered(kept).surface(rides, devices()).restore());
    return rides.learned();
  }

  @Test
  void whatIsNoneAnyMoreIsLeftAsUsual() {
    kept.put("set.snaps", "perhaps");
    kept.put("set.hot", "NaN");
    kept.put("set.recorder-background", "LOUD");
    kept.put("set.recorder-input", "a microphone that is gone");
    kept.put("set.recorder-count-in", "many");
    kept.put("set.output", "gone too");
    kept.put("set.safe-VOICE", "-300");
    robot.interact(
        () -> {
          Remembered remembered = window.remembered(kept);
          remembered.restore();
          assertThat(window.session().habits().snapsProperty().get()).isTrue();
          assertThat(window.session().habits().hotDbProperty().get()).isEqualTo(-6);
          assertThat(window.recording().backgroundProperty().get()).isEqualTo(Background.LOWERED);
          assertThat(window.recording().inputNameProperty().get())
              .isEqualTo(devices().inputs().getFirst());
          assertThat(window.recording().countInSecondsProperty().get()).isEqualTo(3);
          assertThat(window.transport().loudspeaker().chosenOutput()).isEmpty();
          remembered.keep();
        });
    assertThat(kept.get("set.recorder-input", "")).isEqualTo("a microphone that is gone");
    assertThat(kept.get("set.output", "")).isEqualTo("gone too");
  }
}

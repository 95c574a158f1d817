package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.sound.AudioInput;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.InputLost;
import java.util.ArrayList;
import java.util.List;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.ShortMessage;
import org.junit.jupiter.api.Test;

/** Devices, and what stands in for them. */
class SystemDevicesTest {

  private static final int RATE = 48_000;

  private final SystemDevices devices = new SystemDevices();

  @Test
  void theStandInsAreAlwaysThereAndAreNamed() {
    assertThat(devices.outputs()).endsWith("silent output");
    assertThat(devices.inputs()).endsWith("rehearsal microphone");
    assertThat(devices.surfaces()).endsWith("rehearsal surface");
    try (AudioOutput usual = devices.usualOutput(RATE)) {
      assertThat(devices.outputs()).contains(usual.name());
    }
  }

  @Test
  void aDeviceThatIsGoneIsSaid() {
    assertThatThrownBy(() -> devices.output("Harbour speakers", RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("Harbour speakers")
        .hasMessageContaining("plug it in");
    assertThatThrownBy(() -> devices.input("Harbour microphone", RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("Harbour microphone");
    assertThatThrownBy(() -> devices.surface("Harbour desk", (fader, position) -> {}))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("Harbour desk");
  }

  @Test
  void theRehearsalMicrophoneSpeaksWhenToldAndIsNearlySilentElse() {
    try (AudioInput input = devices.input("rehearsal microphone", RATE)) {
      RehearsalMicrophone microphone = (RehearsalMicrophone) input;
      microphone.beQuiet();
      assertThat(loudest(microphone, 20)).isLessThan(0.001f);
      microphone.speak();
      assertThat(loudest(microphone, 150)).isGreaterThan(0.1f);
    }
  }

  private static float loudest(AudioInput input, int blocks) {
    float[] block = new float[480];
    float loudest = 0;
    for (int b = 0; b < blocks; b++) {
      int n = input.read(block);
      for (int i = 0; i < n; i++) {
        loudest = Math.max(loudest, Math.abs(block[i]));
      }
    }
    return loudest;
  }

  @Test
  void aMicrophoneThatWasPutAwayGivesNothingMore() {
    AudioInput input = devices.input("rehearsal microphone", RATE);
    input.close();
    assertThatThrownBy(() -> input.read(new float[480])).isInstanceOf(InputLost.class);
  }

  @Test
  void controlChangesMoveFadersAndNothingElseDoes() throws InvalidMidiDataException {
    List<String> moved = new ArrayList<>();
    try (MidiSurface.Faders faders =
        new MidiSurface.Faders((fader, position) -> moved.add(fader + " " + position))) {
      faders.send(new ShortMessage(ShortMessage.CONTROL_CHANGE, 0, 7, 127), -1);
      faders.send(new ShortMessage(ShortMessage.NOTE_ON, 0, 7, 127), -1);
      faders.send(new MetaMessage(), -1);
      faders.send(new ShortMessage(ShortMessage.CONTROL_CHANGE, 2, 10, 0), -1);
    }
    assertThat(moved).containsExactly("7 1.0", "266 0.0");
  }

  @Test
  void theRehearsalSurfaceMovesInTheStepsThatAControlChangeHas() {
    List<Double> moved = new ArrayList<>();
    RehearsalSurface surface = new RehearsalSurface((fader, position) -> moved.add(position));
    surface.move(1, 0.5);
    surface.close();
    surface.move(1, 0.9);
    assertThat(moved).containsExactly(64 / 127.0);
  }
}

package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.sound.AudioInput;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.Devices;
import hushrise.core.sound.Surface;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.Line;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;
import javax.sound.sampled.TargetDataLine;

/** The machine's sound devices through {@code javax.sound}, and the stand-ins. */
public final class SystemDevices implements Devices {

  private final StandInDevices standIns = new StandInDevices();

  @Override
  public List<String> outputs() {
    List<String> names = new ArrayList<>(namesOf(SourceDataLine.class));
    names.addAll(standIns.outputs());
    return names;
  }

  private static List<String> namesOf(Class<? extends Line> kind) {
    return Arrays.stream(AudioSystem.getMixerInfo())
        .filter(info -> AudioSystem.getMixer(info).isLineSupported(new DataLine.Info(kind, null)))
        .map(Mixer.Info::getName)
        .distinct()
        .toList();
  }

  /** A device by its name. */
  static Mixer.Info named(String name) {
    return Arrays.stream(AudioSystem.getMixerInfo())
        .filter(info -> info.getName().equals(name))
        .findFirst()
        .orElseThrow(
            () ->
                new Problem(
                    "The sound device %s is not there: plug it in, or choose another one."
                        .formatted(name)));
  }

  @Override
  public AudioOutput output(String name, int sampleRate) {
    return name.equals(SilentOutput.NAME)
        ? standIn(sampleRate)
        : DeviceOutput.open(named(name), sampleRate);
  }

  @Override
  public AudioOutput standIn(int sampleRate) {
    return standIns.standIn(sampleRate);
  }

  @Override
  public List<String> inputs() {
    List<String> names = new ArrayList<>(namesOf(TargetDataLine.class));
    names.addAll(standIns.inputs());
    return names;
  }

  @Override
  public AudioInput input(String name, int sampleRate) {
    return name.equals(RehearsalMicrophone.NAME)
        ? standIns.input(name, sampleRate)
        : DeviceInput.open(named(name), sampleRate);
  }

  @Override
  public List<String> surfaces() {
    List<String> names = new ArrayList<>(MidiSurface.names());
    names.addAll(standIns.surfaces());
    return names;
  }

  @Override
  public Surface surface(String name, Surface.Listener listener) {
    return name.equals(RehearsalSurface.NAME)
        ? standIns.surface(name, listener)
        : MidiSurface.open(name, listener);
  }
}

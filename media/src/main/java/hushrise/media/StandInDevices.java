package hushrise.media;

import hushrise.core.sound.AudioInput;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.Devices;
import hushrise.core.sound.Surface;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The stand-ins alone: nothing sounds, and what is recorded was never spoken in this room. */
public final class StandInDevices implements Devices {

  private final Map<Integer, Room> rooms = new HashMap<>();
  private final double aheadSeconds;

  public StandInDevices() {
    this(SilentOutput.AHEAD_SECONDS);
  }

  /**
   * @param aheadSeconds how much the output takes ahead of what has sounded, as devices with a
   *     large buffer do
   */
  public StandInDevices(double aheadSeconds) {
    this.aheadSeconds = aheadSeconds;
  }

  @Override
  public List<String> outputs() {
    return List.of(SilentOutput.NAME);
  }

  @Override
  public AudioOutput output(String name, int sampleRate) {
    return standIn(sampleRate);
  }

  @Override
  public AudioOutput standIn(int sampleRate) {
    return new SilentOutput(sampleRate, Optional.of(room(sampleRate)), aheadSeconds);
  }

  @Override
  public List<String> inputs() {
    return List.of(RehearsalMicrophone.NAME);
  }

  @Override
  public AudioInput input(String name, int sampleRate) {
    return new RehearsalMicrophone(sampleRate, room(sampleRate));
  }

  @Override
  public List<String> surfaces() {
    return List.of(RehearsalSurface.NAME);
  }

  @Override
  public Surface surface(String name, Surface.Listener listener) {
    return new RehearsalSurface(listener);
  }

  private synchronized Room room(int sampleRate) {
    return rooms.computeIfAbsent(sampleRate, Room::new);
  }
}

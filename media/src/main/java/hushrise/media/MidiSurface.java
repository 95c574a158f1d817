package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.sound.Surface;
import java.util.Arrays;
import java.util.List;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequencer;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Synthesizer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The faders of a MIDI device: its control changes (MIDI 1.0, channel voice messages). */
final class MidiSurface implements Surface {

  private static final Logger LOG = LoggerFactory.getLogger(MidiSurface.class);
  private static final int CONTROLLERS = 128;

  private final MidiDevice device;

  private MidiSurface(MidiDevice device) {
    this.device = device;
  }

  /** The names of the devices that give messages. */
  static List<String> names() {
    return Arrays.stream(MidiSystem.getMidiDeviceInfo())
        .filter(MidiSurface::gives)
        .map(MidiDevice.Info::getName)
        .distinct()
        .toList();
  }

  private static boolean gives(MidiDevice.Info info) {
    try {
      MidiDevice device = MidiSystem.getMidiDevice(info);
      boolean program = device instanceof Sequencer || device instanceof Synthesizer;
      return !program && device.getMaxTransmitters() != 0;
    } catch (MidiUnavailableException e) {
      LOG.debug("{} is not there", info, e);
      return false;
    }
  }

  static Surface open(String name, Listener listener) {
    MidiDevice.Info info =
        Arrays.stream(MidiSystem.getMidiDeviceInfo())
            .filter(i -> i.getName().equals(name) && gives(i))
            .findFirst()
            .orElseThrow(
                () ->
                    new Problem(
                        "The control surface %s is not there: plug it in, or choose another one."
                            .formatted(name)));
    try {
      MidiDevice device = MidiSystem.getMidiDevice(info);
      device.open();
      device.getTransmitter().setReceiver(new Faders(listener));
      return new MidiSurface(device);
    } catch (MidiUnavailableException e) {
      throw new Problem(
          "The control surface %s is busy: close what uses it, or choose another one."
              .formatted(name),
          e);
    }
  }

  /** Hears control changes and nothing else. */
  record Faders(Listener listener) implements Receiver {

    @Override
    public void send(MidiMessage message, long timeStamp) {
      if (message instanceof ShortMessage change
          && change.getCommand() == ShortMessage.CONTROL_CHANGE) {
        listener.moved(
            change.getChannel() * CONTROLLERS + change.getData1(), change.getData2() / 127.0);
      }
    }

    @Override
    public void close() {}
  }

  @Override
  public String name() {
    return device.getDeviceInfo().getName();
  }

  @Override
  public void close() {
    device.close();
  }
}

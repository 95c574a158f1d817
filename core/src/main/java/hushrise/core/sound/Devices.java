package hushrise.core.sound;

import java.util.List;

/** The sound devices of a machine, and the stand-ins that ship. */
public interface Devices {

  /** The names of what sound can be played through; never empty, the usual one first. */
  List<String> outputs();

  /**
   * Opens an output.
   *
   * @param name one of {@link #outputs}
   * @throws hushrise.core.Problem when it is gone, busy, or does not take the rate
   */
  AudioOutput output(String name, int sampleRate);

  /** An output that always works. */
  AudioOutput standIn(int sampleRate);

  /** The names of what can be recorded from; never empty, the usual one first. */
  List<String> inputs();

  /**
   * Opens an input.
   *
   * @param name one of {@link #inputs}
   * @throws hushrise.core.Problem when it is gone, busy, or does not give the rate
   */
  AudioInput input(String name, int sampleRate);

  /** The names of control surfaces; never empty, the rehearsal surface last. */
  List<String> surfaces();

  /**
   * Opens a control surface.
   *
   * @param name one of {@link #surfaces}
   * @throws hushrise.core.Problem when it is gone or busy
   */
  Surface surface(String name, Surface.Listener listener);

  /** The usual output, or the stand-in where that cannot be opened. */
  default AudioOutput usualOutput(int sampleRate) {
    try {
      return output(outputs().getFirst(), sampleRate);
    } catch (hushrise.core.Problem e) {
      return standIn(sampleRate);
    }
  }
}

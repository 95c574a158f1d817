package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.sound.AudioInput;
import hushrise.core.sound.InputLost;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.TargetDataLine;

/** A microphone of the system, through {@code javax.sound}, as 16 bits in mono. */
final class DeviceInput implements AudioInput {

  private static final double BLOCK_SECONDS = 0.01;

  private final String name;
  private final TargetDataLine line;
  private final byte[] bytes;

  private DeviceInput(String name, TargetDataLine line, int sampleRate) {
    this.name = name;
    this.line = line;
    this.bytes = new byte[2 * (int) (BLOCK_SECONDS * sampleRate)];
  }

  /**
   * Opens a device.
   *
   * @throws Problem when it is busy or does not take the rate
   */
  static AudioInput open(Mixer.Info device, int sampleRate) {
    AudioFormat format = new AudioFormat(sampleRate, 16, 1, true, false);
    try {
      TargetDataLine line =
          (TargetDataLine)
              AudioSystem.getMixer(device).getLine(new DataLine.Info(TargetDataLine.class, format));
      line.open(format);
      line.start();
      return new DeviceInput(device.getName(), line, sampleRate);
    } catch (LineUnavailableException e) {
      throw new Problem(
          "The microphone %s is busy: close what uses it, or choose another one."
              .formatted(device.getName()),
          e);
    } catch (IllegalArgumentException e) {
      throw new Problem(
          "The microphone %s does not give %d Hz in mono: set it to that rate, or choose another one."
              .formatted(device.getName(), sampleRate),
          e);
    }
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public int read(float[] samples) {
    int wanted = Math.min(bytes.length, samples.length * 2);
    int got = line.read(bytes, 0, wanted);
    if (got <= 0) {
      throw new InputLost(
          "The microphone %s gives nothing any more: plug it in again.".formatted(name), null);
    }
    for (int i = 0; i < got / 2; i++) {
      samples[i] = ((bytes[2 * i + 1] << 8) | (bytes[2 * i] & 0xFF)) / 32_768f;
    }
    return got / 2;
  }

  @Override
  public void close() {
    line.stop();
    line.close();
  }
}

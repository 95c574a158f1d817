package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.OutputLost;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;

/** A sound device of the system, through {@code javax.sound}, as 16-bit stereo. */
final class DeviceOutput implements AudioOutput {

  private static final double BUFFER_SECONDS = 0.05;

  private final String name;
  private final SourceDataLine line;
  private byte[] bytes = new byte[1 << 13];
  private volatile long framesBefore;

  private DeviceOutput(String name, SourceDataLine line) {
    this.name = name;
    this.line = line;
  }

  /**
   * Opens a device.
   *
   * @throws Problem when it is busy or does not take the rate
   */
  static AudioOutput open(Mixer.Info device, int sampleRate) {
    AudioFormat format = new AudioFormat(sampleRate, 16, 2, true, false);
    try {
      SourceDataLine line =
          (SourceDataLine)
              AudioSystem.getMixer(device).getLine(new DataLine.Info(SourceDataLine.class, format));
      int bufferFrames = (int) Math.round(BUFFER_SECONDS * sampleRate);
      line.open(format, bufferFrames * format.getFrameSize());
      line.start();
      return new DeviceOutput(device.getName(), line);
    } catch (LineUnavailableException e) {
      throw new Problem(
          "The sound device %s is busy: close what uses it, or choose another one."
              .formatted(device.getName()),
          e);
    } catch (IllegalArgumentException e) {
      throw new Problem(
          "The sound device %s does not take %d Hz: set it to that rate, or choose another one."
              .formatted(device.getName(), sampleRate),
          e);
    }
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public void write(float[] left, float[] right, int frames) {
    for (int done = 0; done < frames; done += bytes.length / 4) {
      int n = Math.min(frames - done, bytes.length / 4);
      for (int i = 0; i < n; i++) {
        put(i * 4, left[done + i]);
        put(i * 4 + 2, right[done + i]);
      }
      // A line that was lost takes less than it was given instead of waiting.
      if (line.write(bytes, 0, n * 4) < n * 4) {
        throw new OutputLost("The sound device " + name + " takes no more sound", null);
      }
    }
  }

  private void put(int at, float sample) {
    int value = Math.round(Math.clamp(sample, -1f, 1f) * Short.MAX_VALUE);
    bytes[at] = (byte) value;
    bytes[at + 1] = (byte) (value >> 8);
  }

  @Override
  public long framesSounded() {
    return line.getLongFramePosition() - framesBefore;
  }

  @Override
  public void flush() {
    line.flush();
    framesBefore = line.getLongFramePosition();
  }

  @Override
  public void close() {
    line.close();
  }
}

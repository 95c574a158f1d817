package hushrise.media;

import hushrise.core.sound.AudioOutput;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.SourceDataLine;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The system's sound device, through {@code javax.sound}, as 16-bit stereo. */
public final class DeviceOutput implements AudioOutput {

  private static final Logger LOG = LoggerFactory.getLogger(DeviceOutput.class);
  private static final double BUFFER_SECONDS = 0.05;

  private final SourceDataLine line;
  private byte[] bytes = new byte[1 << 12];
  private volatile long framesBefore;

  private DeviceOutput(SourceDataLine line) {
    this.line = line;
  }

  /** The system's device at a rate, or the silent output where there is none. */
  public static AudioOutput orSilent(int sampleRate) {
    AudioFormat format = new AudioFormat(sampleRate, 16, 2, true, false);
    try {
      SourceDataLine line = AudioSystem.getSourceDataLine(format);
      int bufferFrames = (int) Math.round(BUFFER_SECONDS * sampleRate);
      line.open(format, bufferFrames * format.getFrameSize());
      line.start();
      return new DeviceOutput(line);
    } catch (LineUnavailableException | IllegalArgumentException e) {
      LOG.info(
          "No sound device takes {}: the silent output stands in ({})", format, e.getMessage());
      return new SilentOutput(sampleRate);
    }
  }

  @Override
  public String name() {
    return line.getLineInfo().toString();
  }

  @Override
  public void write(float[] left, float[] right, int frames) {
    if (bytes.length < frames * 4) {
      bytes = new byte[frames * 4];
    }
    for (int i = 0; i < frames; i++) {
      put(i * 4, left[i]);
      put(i * 4 + 2, right[i]);
    }
    line.write(bytes, 0, frames * 4);
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

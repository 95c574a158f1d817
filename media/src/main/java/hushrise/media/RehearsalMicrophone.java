package hushrise.media;

import hushrise.core.sound.AudioInput;
import hushrise.core.sound.InputLost;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Random;
import java.util.concurrent.locks.LockSupport;

/**
 * Stands in for a microphone where there is none: a quiet room in which somebody speaks a bundled
 * line, again and again with pauses, and the silent output sounds faintly. What it gives arrives
 * some time after it was spoken, as with a device.
 */
public final class RehearsalMicrophone implements AudioInput {

  /** How much later than it was spoken a sample arrives. */
  public static final double LATENCY_SECONDS = 0.137;

  static final String NAME = "rehearsal microphone";

  /** A resource: the line that it speaks. */
  static final String LINE = "/hushrise/media/rehearsal.wav";

  private static final double BLOCK_SECONDS = 0.01;
  private static final double FIRST_AFTER_SECONDS = 1.2;
  private static final double PAUSE_SECONDS = 2.5;
  private static final float NOISE = 2e-4f;
  private static final float LOUDSPEAKER = 1e-2f;
  private static final float VOICE = 0.7f;
  private static final int HEADER = 44;

  private final int sampleRate;
  private final Room room;
  private final float[] line;
  private final Random random = new Random(7);
  private final long startNanos = System.nanoTime();
  private volatile long speaksFromNanos;
  private volatile boolean byItself = true;
  private volatile boolean closed;
  private long given;

  RehearsalMicrophone(int sampleRate, Room room) {
    this.sampleRate = sampleRate;
    this.room = room;
    line = line();
    speaksFromNanos = startNanos + (long) (FIRST_AFTER_SECONDS * 1e9);
  }

  private static float[] line() {
    try (InputStream in = RehearsalMicrophone.class.getResourceAsStream(LINE)) {
      byte[] bytes = in.readAllBytes();
      ByteBuffer samples =
          ByteBuffer.wrap(bytes, HEADER, bytes.length - HEADER).order(ByteOrder.LITTLE_ENDIAN);
      float[] line = new float[samples.remaining() / 2];
      for (int i = 0; i < line.length; i++) {
        line[i] = VOICE * samples.getShort() / 32_768f;
      }
      return line;
    } catch (IOException e) {
      throw new InputLost("The rehearsal microphone has lost its line", e);
    }
  }

  @Override
  public String name() {
    return NAME;
  }

  /** Lets somebody speak the line now, and from then on only when they are told to. */
  public void speak() {
    byItself = false;
    speaksFromNanos = System.nanoTime();
  }

  /** Lets nobody speak until {@link #speak}. */
  public void beQuiet() {
    byItself = false;
    speaksFromNanos = Long.MAX_VALUE;
  }

  /** The line that is spoken, in mono. */
  public float[] spoken() {
    return line.clone();
  }

  @Override
  public int read(float[] samples) {
    int n = Math.min(samples.length, (int) (BLOCK_SECONDS * sampleRate));
    long due = startNanos + Math.round((given + n) * 1e9 / sampleRate);
    for (long wait = due - System.nanoTime(); wait > 0; wait = due - System.nanoTime()) {
      if (closed) {
        throw new InputLost("The rehearsal microphone was put away", null);
      }
      LockSupport.parkNanos(wait);
    }
    if (closed) {
      throw new InputLost("The rehearsal microphone was put away", null);
    }
    long spokenAt = startNanos + Math.round((given / (double) sampleRate - LATENCY_SECONDS) * 1e9);
    for (int i = 0; i < n; i++) {
      samples[i] = NOISE * (random.nextFloat() * 2 - 1);
    }
    room.hear(spokenAt, LOUDSPEAKER, samples, n);
    speak(samples, n, spokenAt);
    given += n;
    return n;
  }

  private void speak(float[] samples, int n, long spokenAt) {
    long from = speaksFromNanos;
    if (from == Long.MAX_VALUE) {
      return;
    }
    long into = Math.round((spokenAt - from) / 1e9 * sampleRate);
    for (int i = 0; i < n; i++) {
      long at = into + i;
      samples[i] += at >= 0 && at < line.length ? line[(int) at] : 0;
    }
    if (byItself && into > line.length + PAUSE_SECONDS * sampleRate) {
      speaksFromNanos = spokenAt + (long) (PAUSE_SECONDS * 1e8);
    }
  }

  @Override
  public void close() {
    closed = true;
  }
}

package hushrise.media;

import hushrise.core.sound.AudioOutput;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;

/**
 * Stands in for a sound device where there is none: takes samples at the pace of real time and lets
 * them go, or keeps them for inspection.
 */
public final class SilentOutput implements AudioOutput {

  static final String NAME = "silent output";

  /** How much may usually be written ahead of what has sounded. */
  static final double AHEAD_SECONDS = 0.05;

  private final int sampleRate;
  private final Optional<Room> room;
  private final double aheadSeconds;
  private volatile long written;
  private volatile long startNanos;
  private float[] kept = new float[0];
  private int keptFrames;

  public SilentOutput(int sampleRate) {
    this(sampleRate, Optional.empty(), AHEAD_SECONDS);
  }

  /**
   * @param room where it sounds all the same
   * @param aheadSeconds how much may be written ahead of what has sounded: the size of its buffer
   */
  SilentOutput(int sampleRate, Optional<Room> room, double aheadSeconds) {
    this.sampleRate = sampleRate;
    this.room = room;
    this.aheadSeconds = aheadSeconds;
  }

  /**
   * Keeps the first frames that are written from now on.
   *
   * @param frames how many
   */
  public void keep(int frames) {
    kept = new float[frames];
    keptFrames = 0;
  }

  /** The left channel of what was kept so far. */
  public float[] kept() {
    return java.util.Arrays.copyOf(kept, keptFrames);
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public void write(float[] left, float[] right, int frames) {
    if (written == 0) {
      startNanos = System.nanoTime();
    } else if (sounded() > written) {
      // It ran dry: as with a device, the time until now was silence and does not count.
      startNanos = System.nanoTime() - written * 1_000_000_000L / sampleRate;
    }
    if (room.isPresent()) {
      long from = startNanos + written * 1_000_000_000L / sampleRate;
      room.get().sound(from, left, right, frames);
    }
    int n = Math.min(frames, kept.length - keptFrames);
    if (n > 0) {
      System.arraycopy(left, 0, kept, keptFrames, n);
      keptFrames += n;
    }
    long now = written + frames;
    written = now;
    long ahead = now - sounded() - Math.round(aheadSeconds * sampleRate);
    if (ahead > 0) {
      LockSupport.parkNanos(ahead * 1_000_000_000L / sampleRate);
    }
  }

  private long sounded() {
    return (System.nanoTime() - startNanos) * sampleRate / 1_000_000_000L;
  }

  @Override
  public long framesSounded() {
    return written == 0 ? 0 : Math.min(written, sounded());
  }

  @Override
  public void flush() {
    written = 0;
  }

  @Override
  public void close() {}
}

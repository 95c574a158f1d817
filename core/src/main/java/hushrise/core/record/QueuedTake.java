package hushrise.core.record;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.util.concurrent.CancellationException;
import java.util.concurrent.locks.LockSupport;

/**
 * Writes a take on a thread of its own: a disk that is busy for seconds holds up nobody who
 * listens, and no word is lost meanwhile. Samples wait in memory, up to a minute of them.
 *
 * <p>One thread gives samples, any may ask how many.
 */
public final class QueuedTake implements TakeSink {

  private static final int MOST_SECONDS = 60;

  /**
   * So much is written in one go, at most. A disk that takes a second to settle anything at all has
   * to be given more than a second of what waits, or it never keeps up.
   */
  private static final int PIECE_SECONDS = 5;

  private static final long LOOK_NANOS = 20_000_000;
  private static final long LOOK_MILLIS = 40;

  private final TakeSink disk;
  private final float[] ring;
  private final int piece;
  private final Thread thread;
  private volatile long given;
  private volatile long written;
  private volatile boolean ended;
  private volatile Problem failure;
  private volatile boolean isToldOfFailure;

  /**
   * @param disk where the samples go; closed by itself once all are there
   */
  public QueuedTake(TakeSink disk, int sampleRate) {
    this.disk = disk;
    ring = new float[MOST_SECONDS * sampleRate];
    piece = PIECE_SECONDS * sampleRate;
    thread = Thread.ofPlatform().name("hushrise-take").daemon().start(this::work);
  }

  /**
   * Appends samples, and waits for nothing.
   *
   * @throws Problem when the disk took no more, or does not keep up
   */
  @Override
  public void write(float[] samples, int offset, int count) {
    if (failure != null) {
      isToldOfFailure = true;
      throw failure;
    }
    if (given + count - written > ring.length) {
      throw new Problem(
          "The disk has not kept up with what was spoken for a minute: choose another folder for takes. What was spoken so far is kept.");
    }
    int at = (int) (given % ring.length);
    int first = Math.min(count, ring.length - at);
    System.arraycopy(samples, offset, ring, at, first);
    System.arraycopy(samples, offset + first, ring, 0, count - first);
    given += count; // by this one thread alone
    LockSupport.unpark(thread);
  }

  /** How many frames it was given. */
  @Override
  public long frames() {
    return given;
  }

  private void work() {
    try (disk) {
      while (!ended || written < given) {
        int at = (int) (written % ring.length);
        int count = (int) Math.min(Math.min(given - written, piece), ring.length - at);
        if (count == 0) {
          LockSupport.parkNanos(LOOK_NANOS);
        } else {
          disk.write(ring, at, count);
          written += count; // by this one thread alone
        }
      }
    } catch (Problem e) {
      failure = e;
    } catch (RuntimeException | Error e) {
      failure = new Problem("The take could not be written any further (%s).".formatted(e), e);
    }
  }

  /**
   * Ends the take, and waits until all of it is on the disk.
   *
   * @param progress hears how much is; may cancel the waiting, upon which the rest is still written
   * @throws Problem when the disk did not take the end of it, and nobody has been told
   */
  public void finish(Progress progress) {
    ended = true;
    LockSupport.unpark(thread);
    try {
      while (!thread.join(java.time.Duration.ofMillis(LOOK_MILLIS))) {
        progress.at(given == 0 ? 0 : written / (double) given);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    }
    if (failure != null && !isToldOfFailure) {
      isToldOfFailure = true;
      throw failure;
    }
  }

  @Override
  public void close() {
    finish(Progress.NONE);
  }
}

package hushrise.core.play;

import hushrise.core.loudness.KWeighting;
import hushrise.core.mix.BusTap;
import hushrise.core.mix.Mixer;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/**
 * What was rendered, block by block: where it lies on the timeline, when it sounds, and how loud
 * each bus and the mix are in it. A ring with one writer, the rendering thread; all its room is
 * made beforehand. Readers go through it at their own pace and miss no block, unless they stay away
 * for ten seconds, which they are told.
 *
 * <p>A slot is written before the count of published slots is raised, which is volatile; a reader
 * looks at slots under that count alone.
 */
public final class BlockLog implements BusTap {

  private static final int SLOTS = 1024;

  /** Slots behind the newest that a reader may still be looking at while others are written. */
  private static final int SAFE = SLOTS - 64;

  /** How many buses are told of; those after them sound and have no meter. */
  static final int BUSES = 64;

  private static final int VALUES = 3;
  private static final int ROW = (BUSES + 1) * VALUES;

  private final int[] runs = new int[SLOTS];
  private final long[] written = new long[SLOTS];
  private final long[] frames = new long[SLOTS];
  private final int[] counts = new int[SLOTS];
  private final double[] speeds = new double[SLOTS];
  private final List<List<String>> tracks = new ArrayList<>(Collections.nCopies(SLOTS, List.of()));
  private final float[] levels = new float[SLOTS * ROW];
  private final KWeighting[] weights = new KWeighting[2 * (BUSES + 1)];
  private final double[] squares = new double[2];
  private volatile long published;
  private volatile int run;

  // The rendering thread's own.
  private long begunBlocks;
  private int begunRuns;
  private int slot;

  BlockLog(int sampleRate) {
    for (int i = 0; i < weights.length; i++) {
      weights[i] = new KWeighting(sampleRate);
    }
  }

  /** One block of a reader's. */
  public final class Block {
    private int at;

    private Block() {}

    /** Where it lies on the timeline. */
    public long frame() {
      return frames[at];
    }

    public int count() {
      return counts[at];
    }

    /** The ids of the tracks whose buses it has, in their order. */
    public List<String> trackIds() {
      return tracks.get(at);
    }

    /**
     * The largest sample, full scale 1.
     *
     * @param bus a track's place, or -1 for the mix
     * @param channel 0 left, 1 right
     */
    public float peak(int bus, int channel) {
      return bus >= BUSES ? 0 : levels[at * ROW + (bus + 1) * VALUES + channel];
    }

    /** The mean square after K-weighting, both channels added; {@code bus} as above. */
    public float energy(int bus) {
      return bus >= BUSES ? 0 : levels[at * ROW + (bus + 1) * VALUES + 2];
    }
  }

  /** Takes blocks. */
  @FunctionalInterface
  public interface Taker {

    /** Takes a block; it is used again for the next one. */
    void take(Block block);
  }

  /** One who reads; for one thread. */
  public final class Reader {
    private final Block block = new Block();
    private long next = published;
    private long missed;

    private Reader() {}

    /**
     * Takes all blocks that have begun to sound.
     *
     * @param sounded how many frames have sounded since the run began
     */
    public void take(long sounded, Taker taker) {
      long until = published;
      if (until - next > SAFE) {
        missed += until - SAFE - next;
        next = until - SAFE;
      }
      while (next < until) {
        int at = (int) (next % SLOTS);
        if (runs[at] == run && written[at] >= sounded) {
          return;
        }
        block.at = at;
        taker.take(block);
        next++;
      }
    }

    /** How many blocks it came too late for. */
    public long missed() {
      return missed;
    }
  }

  /** One who takes all blocks from now on. */
  public Reader reader() {
    return new Reader();
  }

  /** Begins another run: the count of frames that have sounded starts again at 0. */
  void beginRun() {
    begunRuns++;
    run = begunRuns;
  }

  /**
   * Begins a block; its buses are told next.
   *
   * @param writtenFrames how many frames had gone to the output before it
   * @param speed how many of its frames go by while one sounds
   */
  void beginBlock(Mixer mixer, long writtenFrames, long frame, int count, double speed) {
    slot = (int) (begunBlocks % SLOTS);
    runs[slot] = begunRuns;
    written[slot] = writtenFrames;
    frames[slot] = frame;
    counts[slot] = count;
    speeds[slot] = speed;
    tracks.set(slot, mixer.trackIds());
    java.util.Arrays.fill(levels, slot * ROW, (slot + 1) * ROW, 0);
  }

  @Override
  public void bus(int bus, float[] left, float[] right, int count) {
    if (bus < BUSES) {
      int at = slot * ROW + (bus + 1) * VALUES;
      levels[at] = peak(left, count);
      levels[at + 1] = peak(right, count);
      int weight = 2 * (bus + 1);
      KWeighting.squares(weights[weight], weights[weight + 1], left, right, 0, count, squares);
      levels[at + 2] = (float) ((squares[0] + squares[1]) / count);
    }
  }

  /** Ends a block with what the mix is. */
  void endBlock(float[] left, float[] right, int count) {
    bus(-1, left, right, count);
    begunBlocks++;
    published = begunBlocks;
  }

  private static float peak(float[] samples, int n) {
    float peak = 0;
    for (int i = 0; i < n; i++) {
      peak = Math.max(peak, Math.abs(samples[i]));
    }
    return peak;
  }

  /**
   * The frame of the timeline that sounds.
   *
   * @param sounded how many frames have sounded since the run began
   * @param otherwise the answer before the first block
   */
  long frameAt(long sounded, long otherwise) {
    long end = published;
    for (long at = end - 1; at >= Math.max(0, end - SAFE); at--) {
      int i = (int) (at % SLOTS);
      if (runs[i] != run) {
        return otherwise;
      }
      if (written[i] <= sounded) {
        return frames[i] + Math.min(counts[i], Math.round((sounded - written[i]) * speeds[i]));
      }
    }
    return otherwise;
  }
}

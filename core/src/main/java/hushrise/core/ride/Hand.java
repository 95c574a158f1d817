package hushrise.core.ride;

import hushrise.core.Decibels;
import hushrise.core.project.level.LevelLine;

/**
 * A hand on a track's fader while the film plays. While it holds the fader, its level stands in the
 * place of the track's level line; what was heard of it is kept, to be written.
 *
 * <p>One thread moves the hand, another one renders. The level runs straight in dB from where the
 * hand was at the beginning of a block to where it is at its end, so that nothing clicks, and the
 * ends of those blocks are what is kept: what is written is what was heard, at the frames where it
 * was heard. Neither thread waits for the other and rendering allocates nothing.
 */
public final class Hand {

  /** How many ends of blocks are kept until somebody takes them: 87 s at 48 kHz. */
  private static final int SLOTS = 1 << 13;

  private enum State {
    /** Not touched since playing began here: the line is heard. */
    AWAY,
    HOLDING,
    /** Let go, and the level stays. */
    STAYING,
    /** Let go, and the level goes back to the line. */
    GLIDING
  }

  private final boolean glides;
  private final long glideFrames;
  private final long[] frames = new long[SLOTS];
  private final double[] levels = new double[SLOTS];
  private final boolean[] begins = new boolean[SLOTS];
  private volatile double wantedDb;
  private volatile boolean held;
  private volatile long published;
  private volatile long taken;
  private volatile double heardDb;

  // The rendering thread's own.
  private State state = State.AWAY;
  private long reachedFrame = -1;
  private double reachedDb;
  private double fromDb;
  private double releasedDb;
  private long releasedFrame;
  private long blockStart;
  private int blockFrames = 1;

  /**
   * A hand that has touched nothing yet.
   *
   * @param glides whether the level goes back to the line once the hand has let go; else it stays
   * @param glideFrames how long it takes to go back
   */
  public Hand(boolean glides, long glideFrames) {
    this.glides = glides;
    this.glideFrames = Math.max(1, glideFrames);
  }

  /** Holds the fader at a level. */
  public void hold(double levelDb) {
    wantedDb = Math.max(levelDb, Decibels.OFF_DB);
    held = true;
  }

  /** Lets go of the fader. */
  public void letGo() {
    held = false;
  }

  public boolean isHolding() {
    return held;
  }

  /** The level that it was moved to last. */
  public double wantedDb() {
    return wantedDb;
  }

  /** The level that was rendered last: the line's, or the hand's. */
  public double heardDb() {
    return heardDb;
  }

  /**
   * Goes on to the next block. On the rendering thread.
   *
   * @param line what is heard while the hand is away
   */
  public void move(long startFrame, int count, LevelLine line) {
    boolean goesOn = startFrame == reachedFrame;
    if (!goesOn && state != State.AWAY) {
      state = State.AWAY;
    }
    long end = startFrame + count;
    blockStart = startFrame;
    blockFrames = count;
    boolean holding = held;
    if (holding && state == State.AWAY) {
      reachedDb = line.levelDbAt(startFrame);
      keep(startFrame, reachedDb, true);
    } else if (!holding && state == State.HOLDING) {
      state = glides ? State.GLIDING : State.STAYING;
      releasedDb = reachedDb;
      releasedFrame = startFrame;
    }
    if (holding) {
      state = State.HOLDING;
    }
    fromDb = reachedDb;
    reachedFrame = end;
    // No switch: its first use would make a table, on the rendering thread.
    if (state == State.AWAY) {
      reachedDb = line.levelDbAt(end);
    } else if (state == State.HOLDING) {
      reachedDb = wantedDb;
    } else if (state == State.GLIDING) {
      double part = Math.min(1, (end - releasedFrame) / (double) glideFrames);
      reachedDb = releasedDb + part * (line.levelDbAt(end) - releasedDb);
    }
    heardDb = reachedDb;
    if (state != State.AWAY) {
      keep(end, reachedDb, false);
      if (state == State.GLIDING && end - releasedFrame >= glideFrames) {
        state = State.AWAY;
      }
    } else {
      fromDb = Double.NaN;
    }
  }

  /** Lets the factors of the block that was moved to last follow the hand, or the line. */
  public void multiply(long firstFrame, int step, int count, float[] factors, LevelLine line) {
    boolean byLine = Double.isNaN(fromDb);
    for (int i = 0; i < count; i++) {
      long frame = firstFrame + (long) i * step;
      double db;
      if (byLine) {
        db = line.levelDbAt(frame);
      } else {
        double part = Math.clamp((frame - blockStart) / (double) blockFrames, 0.0, 1.0);
        db = fromDb + part * (reachedDb - fromDb);
      }
      factors[i] *= db <= Decibels.OFF_DB ? 0 : (float) Decibels.toFactor(db);
    }
  }

  private void keep(long frame, double db, boolean begin) {
    long at = published;
    if (at - taken >= SLOTS) {
      return; // nobody has looked for a minute and a half: the rest is heard, not written
    }
    int slot = (int) (at % SLOTS);
    frames[slot] = frame;
    levels[slot] = db;
    begins[slot] = begin;
    published = at + 1;
  }

  /** Takes what has been heard of the hand since this was last asked. For one thread. */
  public void takeInto(Pass pass) {
    long until = published;
    for (long at = taken; at < until; at++) {
      int slot = (int) (at % SLOTS);
      pass.add(frames[slot], levels[slot], begins[slot]);
    }
    taken = until;
  }
}

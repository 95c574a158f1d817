package hushrise.core.mix;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Side;
import hushrise.core.sound.SampleSource;
import java.util.Optional;

/**
 * One clip within a mix: adds its samples, times its gain, its fades and its track's factors, to a
 * block.
 *
 * <p>Factors are worked out every {@link Mixer#CELL} frames, at multiples of it, and run straight
 * between: at 48 kHz two thirds of a millisecond, in which a straight line stays within 0.01 dB of
 * any fade or hush a person would make, and a hold's step costs no click. Runs of cells with one
 * steady factor become one loop that the compiler turns into vector instructions.
 */
final class ClipVoice {

  private static final float[] STEPS = steps();

  private final Clip clip;
  private final ClipEnvelope envelope;
  private final ClipReader reader;
  private final float gain;
  private final float[] left;
  private final float[] right;
  private final float[] factors;
  private final float[] gains;
  private Optional<ClipVoice> before = Optional.empty();

  /** The factors at both ends of the cell that was rendered last, and where that cell begins. */
  private float cellFactor;

  private float lastFactor;
  private long lastCell;
  private boolean slewing;
  private boolean ending;

  ClipVoice(Clip clip, ClipEnvelope envelope, SampleSource source, Scratch scratch) {
    this.clip = clip;
    this.envelope = envelope;
    this.reader = new ClipReader(clip, source, scratch);
    this.left = scratch.left();
    this.right = scratch.right();
    this.factors = scratch.factors();
    this.gains = scratch.gains();
    this.gain = (float) Decibels.toFactor(clip.gainDb());
  }

  String clipId() {
    return clip.id();
  }

  /** Whether another voice plays the same samples at the same times and the same pan. */
  boolean isSameSound(ClipVoice other) {
    return reader.readsOf(other.reader)
        && clip.id().equals(other.clip.id())
        && clip.mediaId().equals(other.clip.mediaId())
        && clip.mediaStartFrame() - clip.startFrame()
            == other.clip.mediaStartFrame() - other.clip.startFrame()
        && clip.seams().equals(other.clip.seams())
        && clip.side() == other.clip.side();
  }

  /** Goes on from where another voice of the same sound stands, or from silence. */
  void follow(Optional<ClipVoice> voice) {
    before = voice;
  }

  /** Begins to follow: from now on its factor moves no faster than {@link Mixer#MOST_STEP}. */
  void beginFollowing() {
    cellFactor = before.isPresent() ? before.get().cellFactor : 0;
    lastFactor = before.isPresent() ? before.get().lastFactor : 0;
    lastCell = before.isPresent() ? before.get().lastCell : Long.MIN_VALUE;
    slewing = true;
    before = Optional.empty();
  }

  /** Begins to fade to silence, as no voice goes on with its sound. */
  void beginEnding() {
    slewing = true;
    ending = true;
  }

  /** Whether it has nothing more to say. */
  boolean hasEnded() {
    return ending && lastFactor == 0;
  }

  void touch(long startFrame, int frames) {
    long first = Math.max(startFrame, clip.startFrame());
    long last = Math.min(startFrame + frames, clip.endFrame());
    if (first < last) {
      reader.touch(first - clip.startFrame(), (int) (last - first));
    }
  }

  boolean sounds(long startFrame, int frames) {
    return clip.startFrame() < startFrame + frames && startFrame < clip.endFrame();
  }

  /**
   * @param startFrame the block's first frame on the timeline
   * @param frames at most {@link Mixer#BLOCK}
   * @param trackFactors the track's factors from the cell that holds {@code startFrame} on
   * @param panLeft the track's factor for the left channel
   * @param panRight the track's factor for the right channel
   */
  void addTo(
      long startFrame,
      int frames,
      float[] trackFactors,
      float panLeft,
      float panRight,
      float[] mixLeft,
      float[] mixRight) {
    int first = (int) Math.max(0, clip.startFrame() - startFrame);
    int last = (int) Math.min(frames, clip.endFrame() - startFrame);
    reader.read(startFrame + first - clip.startFrame(), last - first, left, right, first);
    boolean stereo = reader.channels() == 2;
    float[] leftSamples = stereo && clip.side() == Side.RIGHT ? right : left;
    float[] rightSamples = stereo && clip.side() != Side.LEFT ? right : left;
    long cell = Math.floorDiv(startFrame, Mixer.CELL) * Mixer.CELL;
    int skip = (int) (startFrame - cell);
    int cells = (skip + last + Mixer.CELL - 1) / Mixer.CELL;
    for (int i = 0; i <= cells; i++) {
      factors[i] = trackFactors[i] * gain * (float) envelope.factorAt(cell + (long) i * Mixer.CELL);
    }
    boolean startsHere = clip.startFrame() >= startFrame;
    if (slewing && (ending || !startsHere)) {
      slew(cell, cells);
    } else {
      slewing = false;
    }
    cellFactor = factors[cells - 1];
    lastFactor = factors[cells];
    lastCell = cell + (cells - 1L) * Mixer.CELL;
    for (int at = first; at < last; ) {
      int from = (skip + at) / Mixer.CELL;
      boolean steady = factors[from + 1] == factors[from];
      int to = from + 1;
      while (to < cells && (factors[to + 1] == factors[to]) == steady) {
        to++;
      }
      int until = Math.min(last, to * Mixer.CELL - skip);
      if (steady) {
        addSteady(at, until, factors[from] * panLeft, leftSamples, mixLeft);
        addSteady(at, until, factors[from] * panRight, rightSamples, mixRight);
      } else {
        fillGains(at, until, skip);
        addSloping(at, until, panLeft, leftSamples, mixLeft);
        addSloping(at, until, panRight, rightSamples, mixRight);
      }
      at = until;
    }
  }

  /**
   * Lets factors move from those rendered last by at most a step a cell, until they are where they
   * go. A block that begins within the cell in which the last one ended goes on in that very cell.
   */
  private void slew(long firstCell, int cells) {
    boolean within = firstCell == lastCell;
    float at = lastFactor;
    int known = within ? 1 : 0;
    boolean arrived = false;
    boolean arrivedBefore = false;
    for (int i = 0; i <= cells; i++) {
      float target = ending ? 0 : factors[i];
      if (i > known) {
        at = stepped(at, target);
      }
      factors[i] = i < known ? cellFactor : at;
      arrivedBefore = arrived;
      arrived = factors[i] == target;
    }
    // The next block may begin within the last cell, so both of its ends must have arrived.
    slewing = ending || !(arrived && arrivedBefore);
  }

  private static float stepped(float at, float target) {
    float highest = Math.max(at, Mixer.FLOOR) * Mixer.MOST_STEP;
    float lowest = at / Mixer.MOST_STEP;
    return target > highest ? highest : target < lowest && lowest > Mixer.FLOOR ? lowest : target;
  }

  private static void addSteady(int from, int to, float factor, float[] samples, float[] mix) {
    if (factor == 0) {
      return;
    }
    for (int i = from; i < to; i++) {
      mix[i] += factor * samples[i];
    }
  }

  /** Fills the gains of frames in cells, straight from one cell's factor to the next one's. */
  private void fillGains(int from, int to, int skip) {
    for (int i = from; i < to; ) {
      int cell = (skip + i) / Mixer.CELL;
      int into = skip + i - cell * Mixer.CELL;
      int n = Math.min(to - i, Mixer.CELL - into);
      float factor = factors[cell];
      float slope = (factors[cell + 1] - factor) / Mixer.CELL;
      for (int k = 0; k < n; k++) {
        gains[i + k] = factor + slope * STEPS[into + k];
      }
      i += n;
    }
  }

  private void addSloping(int from, int to, float pan, float[] samples, float[] mix) {
    for (int i = from; i < to; i++) {
      mix[i] += gains[i] * pan * samples[i];
    }
  }

  private static float[] steps() {
    float[] steps = new float[Mixer.CELL];
    for (int i = 0; i < steps.length; i++) {
      steps[i] = i;
    }
    return steps;
  }
}

package hushrise.core.separation;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.Pan;
import hushrise.core.level.TrackCurve;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Side;
import hushrise.core.project.timeline.Track;

/**
 * What one clip gives to the steps of {@link Energies}: the energy of its file, times the squares
 * of all factors in the middle of the step.
 *
 * <p>Levels are worked out for some steps ahead of their energies: one loop over both is so large
 * that Java's compiler is busy with it for seconds.
 */
final class ClipEnergy {

  private static final int BLOCK = 64;

  private final Clip clip;
  private final ClipEnvelope envelope;
  private final LoudnessSteps sound;
  private final TrackCurve curve;
  private final int rate;
  private final double gain;
  private final double left;
  private final double right;
  private final int ofLeft;
  private final int ofRight;
  private final double[] levels = new double[BLOCK];

  /** Where the curve was read last, and its level there. */
  private int interval;

  private double levelDb;
  private double ofLevel = 1;

  /**
   * @param sound the steps of the clip's file
   * @param rate the timeline's frames a second
   */
  ClipEnergy(
      Clip clip,
      Track track,
      ClipEnvelope envelope,
      LoudnessSteps sound,
      TrackCurve curve,
      int rate) {
    this.clip = clip;
    this.envelope = envelope;
    this.sound = sound;
    this.curve = curve;
    this.rate = rate;
    gain = square(Decibels.toFactor(clip.gainDb()));
    left = square(Pan.left(track.pan()));
    right = square(Pan.right(track.pan()));
    ofLeft = clip.side() == Side.RIGHT ? 1 : 0;
    ofRight = clip.side() == Side.LEFT ? 0 : 1;
  }

  /** Adds to those of the changing steps that the clip sounds in. */
  void addTo(EnergySteps.Change change) {
    int first = (int) (clip.startFrame() * LoudnessSteps.PER_SECOND / rate);
    int last = Math.min(change.to(), LoudnessSteps.stepsIn(clip.endFrame(), rate));
    for (int step = Math.max(change.from(), first); step < last; step += BLOCK) {
      int n = Math.min(BLOCK, last - step);
      for (int i = 0; i < n; i++) {
        levels[i] = levelAt(step + i);
      }
      for (int i = 0; i < n; i++) {
        change.add(step + i, levels[i] * energyAt(step + i));
      }
    }
  }

  private long startIn(int step) {
    return Math.max(LoudnessSteps.frameOf(step, rate), clip.startFrame());
  }

  private long endIn(int step) {
    return Math.min(LoudnessSteps.frameOf(step + 1, rate), clip.endFrame());
  }

  /** Where in a step the clip is looked at. */
  private long middleIn(int step) {
    return (startIn(step) + endIn(step)) / 2;
  }

  /** The square of all factors, times how much of the step the clip fills. */
  private double levelAt(int step) {
    long middle = middleIn(step);
    long whole = LoudnessSteps.frameOf(step + 1, rate) - LoudnessSteps.frameOf(step, rate);
    interval = curve.seek(middle, interval);
    double db = curve.levelDbAt(middle, interval);
    if (db != levelDb) {
      levelDb = db;
      ofLevel = square(Decibels.toFactor(db));
    }
    double own = gain * ofLevel * square(envelope.factorAt(middle));
    return own * (endIn(step) - startIn(step)) / whole;
  }

  private double energyAt(int step) {
    double place =
        clip.mediaFrameAt(middleIn(step) - clip.startFrame())
            * (double) LoudnessSteps.PER_SECOND
            / rate;
    return left * sound.energyAt(ofLeft, place) + right * sound.energyAt(ofRight, place);
  }

  private static double square(double x) {
    return x * x;
  }
}

package hushrise.core.mix;

import hushrise.core.Decibels;
import hushrise.core.project.Clip;
import hushrise.core.sound.SampleSource;

/**
 * One clip within a mix: adds its samples, times its gain, its fades and its track's factors, to a
 * block.
 *
 * <p>Factors are worked out every {@link Mixer#CELL} frames, at multiples of it, and run straight
 * between: at 48 kHz a third of a millisecond, in which a straight line stays within 0.01 dB of any
 * fade or hush a person would make, and a hold's step costs no click. Runs of cells with one steady
 * factor become one loop that the compiler turns into vector instructions.
 */
final class ClipVoice {

  private final Clip clip;
  private final ClipReader reader;
  private final float gain;
  private final float[] left;
  private final float[] right;
  private final float[] factors;

  ClipVoice(Clip clip, SampleSource source, Scratch scratch) {
    this.clip = clip;
    this.reader = new ClipReader(clip, source, scratch);
    this.left = scratch.left();
    this.right = scratch.right();
    this.factors = scratch.factors();
    this.gain = (float) Decibels.toFactor(clip.gainDb());
  }

  boolean sounds(long startFrame, int frames) {
    return clip.startFrame() < startFrame + frames && startFrame < clip.endFrame();
  }

  /**
   * @param startFrame the block's first frame on the timeline
   * @param frames at most {@link Mixer#BLOCK}
   * @param trackFactors the track's factors from the cell that holds {@code startFrame} on
   */
  void addTo(long startFrame, int frames, float[] trackFactors, float[] mixLeft, float[] mixRight) {
    int first = (int) Math.max(0, clip.startFrame() - startFrame);
    int last = (int) Math.min(frames, clip.endFrame() - startFrame);
    reader.read(startFrame + first - clip.startFrame(), last - first, left, right);
    float[] rightSamples = reader.channels() == 1 ? left : right;
    long cell = Math.floorDiv(startFrame, Mixer.CELL) * Mixer.CELL;
    int skip = (int) (startFrame - cell);
    int cells = (skip + last + Mixer.CELL - 1) / Mixer.CELL;
    for (int i = 0; i <= cells; i++) {
      factors[i] = trackFactors[i] * gain * (float) clip.fadeFactorAt(cell + (long) i * Mixer.CELL);
    }
    int at = first;
    while (at < last) {
      int i = (skip + at) / Mixer.CELL;
      float factor = factors[i];
      if (factors[i + 1] == factor) {
        int j = i + 1;
        while (j < cells && factors[j + 1] == factor) {
          j++;
        }
        int until = Math.min(last, j * Mixer.CELL - skip);
        addSteady(at, until, at - first, factor, left, mixLeft);
        addSteady(at, until, at - first, factor, rightSamples, mixRight);
        at = until;
      } else {
        int until = Math.min(last, (i + 1) * Mixer.CELL - skip);
        float slope = (factors[i + 1] - factor) / Mixer.CELL;
        int into = skip + at - i * Mixer.CELL;
        addSloping(at, until, at - first, factor, slope, into, left, mixLeft);
        addSloping(at, until, at - first, factor, slope, into, rightSamples, mixRight);
        at = until;
      }
    }
  }

  private static void addSteady(
      int from, int to, int sample, float factor, float[] samples, float[] mix) {
    if (factor == 0) {
      return;
    }
    int shift = sample - from;
    for (int i = from; i < to; i++) {
      mix[i] += factor * samples[i + shift];
    }
  }

  private static void addSloping(
      int from,
      int to,
      int sample,
      float factor,
      float slope,
      int into,
      float[] samples,
      float[] mix) {
    int shift = sample - from;
    for (int i = from; i < to; i++) {
      mix[i] += (factor + slope * (into + i - from)) * samples[i + shift];
    }
  }
}

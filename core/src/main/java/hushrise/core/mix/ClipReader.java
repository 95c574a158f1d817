package hushrise.core.mix;

import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.sound.SampleSource;
import java.util.List;

/**
 * Reads a clip's content as it plays: its media from the clip's start, jumping at each seam with a
 * crossfade whose gains {@code cos a, sin a} are divided by {@code sqrt(1 + 2 r sin a cos a)},
 * which keeps the power of two sounds of correlation {@code r} even. What it gives for a frame does
 * not depend on how a range is cut into calls.
 */
final class ClipReader {

  private final SampleSource source;
  private final long mediaStartFrame;
  private final List<Seam> seams;
  private final float[] otherLeft;
  private final float[] otherRight;

  ClipReader(Clip clip, SampleSource source, Scratch scratch) {
    this.source = source;
    this.otherLeft = scratch.otherLeft();
    this.otherRight = scratch.otherRight();
    this.mediaStartFrame = clip.mediaStartFrame();
    this.seams = clip.seams();
  }

  /** Whether both read the same sound; a file that has gone or changed is another one. */
  boolean readsOf(ClipReader other) {
    return source == other.source;
  }

  int channels() {
    return source.channels();
  }

  /**
   * Reads at most {@link Mixer#BLOCK} frames.
   *
   * @param at frames from the clip's start
   * @param offset where in the arrays to begin
   */
  void read(long at, int frames, float[] left, float[] right, int offset) {
    int done = 0;
    int next = firstSeamEndingAfter(at);
    while (done < frames) {
      long here = at + done;
      while (next < seams.size() && seams.get(next).endFrame() <= here) {
        next++;
      }
      long mediaFrame = mediaFrameBefore(next) + here;
      if (next == seams.size() || here < seams.get(next).startFrame()) {
        long until = next == seams.size() ? Long.MAX_VALUE : seams.get(next).startFrame();
        int n = (int) Math.min(frames - done, until - here);
        source.read(mediaFrame, n, left, right, offset + done);
        done += n;
      } else {
        Seam seam = seams.get(next);
        int n = (int) Math.min(frames - done, seam.endFrame() - here);
        source.read(mediaFrame, n, left, right, offset + done);
        source.read(seam.toFrame() + here - seam.atFrame(), n, otherLeft, otherRight, 0);
        crossfade(seam, here, n, left, right, offset + done);
        done += n;
      }
    }
  }

  /** Brings near what {@link #read} will ask for; the other side of a seam comes near with it. */
  void touch(long at, int frames) {
    long here = at;
    int next = firstSeamEndingAfter(at);
    while (here < at + frames) {
      long until = next == seams.size() ? Long.MAX_VALUE : seams.get(next).endFrame();
      int n = (int) Math.min(at + frames - here, until - here);
      source.touch(mediaFrameBefore(next) + here, n);
      here += n;
      next++;
    }
  }

  private void crossfade(Seam seam, long here, int n, float[] left, float[] right, int offset) {
    double quarterTurn = Math.PI / 2 / seam.crossfadeFrames();
    double correlation = seam.correlation();
    boolean stereo = source.channels() == 2;
    for (int i = 0; i < n; i++) {
      double angle = (here + i - seam.startFrame() + 0.5) * quarterTurn;
      double sin = Math.sin(angle);
      double cos = Math.cos(angle);
      double even = 1 / Math.sqrt(1 + 2 * correlation * sin * cos);
      float out = (float) (cos * even);
      float in = (float) (sin * even);
      left[offset + i] = left[offset + i] * out + otherLeft[i] * in;
      if (stereo) {
        right[offset + i] = right[offset + i] * out + otherRight[i] * in;
      }
    }
  }

  private int firstSeamEndingAfter(long at) {
    int low = 0;
    int high = seams.size();
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (seams.get(middle).endFrame() <= at) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /** What to add to a clip time before seam {@code index} to get the media frame. */
  private long mediaFrameBefore(int index) {
    return index == 0
        ? mediaStartFrame
        : seams.get(index - 1).toFrame() - seams.get(index - 1).atFrame();
  }
}

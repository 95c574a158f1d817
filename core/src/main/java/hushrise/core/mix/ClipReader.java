package hushrise.core.mix;

import hushrise.core.project.Clip;
import hushrise.core.project.Seam;
import hushrise.core.sound.SampleSource;
import java.util.List;

/**
 * Reads a clip's content as it plays: its media from the clip's start, jumping at each seam with an
 * equal-power crossfade. What it gives for a frame does not depend on how a range is cut into
 * calls.
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
      while (next < seams.size() && end(seams.get(next)) <= here) {
        next++;
      }
      long mediaFrame = mediaFrameBefore(next) + here;
      if (next == seams.size() || here < start(seams.get(next))) {
        long until = next == seams.size() ? Long.MAX_VALUE : start(seams.get(next));
        int n = (int) Math.min(frames - done, until - here);
        source.read(mediaFrame, n, left, right, offset + done);
        done += n;
      } else {
        Seam seam = seams.get(next);
        int n = (int) Math.min(frames - done, end(seam) - here);
        source.read(mediaFrame, n, left, right, offset + done);
        source.read(seam.toFrame() + here - seam.atFrame(), n, otherLeft, otherRight, 0);
        crossfade(seam, here, n, left, right, offset + done);
        done += n;
      }
    }
  }

  private void crossfade(Seam seam, long here, int n, float[] left, float[] right, int offset) {
    double quarterTurn = Math.PI / 2 / seam.crossfadeFrames();
    boolean stereo = source.channels() == 2;
    for (int i = 0; i < n; i++) {
      double angle = (here + i - start(seam) + 0.5) * quarterTurn;
      float out = (float) Math.cos(angle);
      float in = (float) Math.sin(angle);
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
      if (end(seams.get(middle)) <= at) {
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

  private static long start(Seam seam) {
    return seam.atFrame() - seam.crossfadeFrames() / 2;
  }

  private static long end(Seam seam) {
    return start(seam) + seam.crossfadeFrames();
  }
}

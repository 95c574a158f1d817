package hushrise.core.fit;

import hushrise.core.project.timeline.Seam;
import java.util.ArrayList;
import java.util.List;

/**
 * A song brought to a length: what plays, one run after another.
 *
 * @param mediaStartFrame the media frame it begins with
 * @param lengthFrames how long it is
 * @param pauseFrames how much later than asked it begins, so that it ends when it should
 * @param seams where it jumps
 * @param cutFrames how much of its own ending does not fit in and is left away: it has to be faded
 */
public record Arrangement(
    long mediaStartFrame, long lengthFrames, long pauseFrames, List<Seam> seams, long cutFrames) {

  public Arrangement {
    seams = List.copyOf(seams);
  }

  Arrangement(long mediaStartFrame, long lengthFrames, long pauseFrames, List<Seam> seams) {
    this(mediaStartFrame, lengthFrames, pauseFrames, seams, 0);
  }

  /** The runs of a list of jumps as seams in time; each jump starts where the one before led. */
  static List<Seam> seamsOf(long mediaStartFrame, List<Splice> splices) {
    List<Seam> seams = new ArrayList<>();
    long at = 0;
    long media = mediaStartFrame;
    for (Splice s : splices) {
      at += s.fromFrame() - media;
      seams.add(
          new Seam(
              at,
              s.fromFrame(),
              s.toFrame(),
              s.crossfadeFrames(),
              s.score(),
              s.correlation(),
              s.evening()));
      media = s.toFrame();
    }
    return seams;
  }

  /** How long a list of jumps makes a song that ends at {@code mediaEndFrame}. */
  static long lengthOf(long mediaStartFrame, long mediaEndFrame, List<Splice> splices) {
    long length = mediaEndFrame - mediaStartFrame;
    for (Splice s : splices) {
      length += s.fromFrame() - s.toFrame();
    }
    return length;
  }
}

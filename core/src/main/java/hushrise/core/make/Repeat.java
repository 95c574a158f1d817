package hushrise.core.make;

import hushrise.core.project.Clip;
import hushrise.core.project.Seam;
import java.util.ArrayList;
import java.util.List;

/** Fits a clip to a length in the plainest way: cut when too long, repeated when too short. */
public final class Repeat {

  /** The crossfade at a join, unless the media is too short for it. */
  private static final double CROSSFADE_SECONDS = 0.25;

  private Repeat() {}

  /**
   * The clip at a new length. Where its media ends before that, it goes on from the media's start,
   * with an equal-power crossfade at each join.
   *
   * @param clip a clip that plays from its media's start
   * @param mediaLengthFrames the media's length, at least 2
   * @param lengthFrames the length wanted
   */
  public static Clip toLength(
      Clip clip, long mediaLengthFrames, long lengthFrames, int sampleRate) {
    long crossfade =
        Math.min(Math.round(CROSSFADE_SECONDS * sampleRate), mediaLengthFrames / 4) / 2 * 2;
    long period = mediaLengthFrames - crossfade;
    List<Seam> seams = new ArrayList<>();
    for (long at = mediaLengthFrames - crossfade / 2;
        at + crossfade / 2 - crossfade < lengthFrames;
        at += period) {
      seams.add(new Seam(at, mediaLengthFrames - crossfade / 2, crossfade / 2, crossfade, 0));
    }
    return clip.withContent(lengthFrames, seams);
  }
}

package hushrise.core.fit;

import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import java.util.ArrayList;
import java.util.List;

/** Fits a clip to a length in the plainest way: cut when too long, repeated when too short. */
public final class Repeat {

  /** The crossfade at a join, unless the media is too short for it. */
  private static final double CROSSFADE_SECONDS = 0.25;

  private Repeat() {}

  /**
   * The clip at a new length. Where its part of the media ends before that, it goes on from where
   * it began, with an equal-power crossfade at each join.
   *
   * @param clip a clip that plays straight through its media
   * @param mediaEndFrame where in the media its part ends, at least 2 frames after it begins
   * @param lengthFrames the length wanted
   */
  public static Clip toLength(Clip clip, long mediaEndFrame, long lengthFrames, int sampleRate) {
    long begin = clip.mediaStartFrame();
    long part = mediaEndFrame - begin;
    long crossfade = Math.min(Math.round(CROSSFADE_SECONDS * sampleRate), part / 4) / 2 * 2;
    long period = part - crossfade;
    List<Seam> seams = new ArrayList<>();
    for (long at = part - crossfade / 2;
        at + crossfade / 2 - crossfade < lengthFrames;
        at += period) {
      seams.add(new Seam(at, mediaEndFrame - crossfade / 2, begin + crossfade / 2, crossfade, 0));
    }
    return clip.withContent(lengthFrames, seams);
  }
}

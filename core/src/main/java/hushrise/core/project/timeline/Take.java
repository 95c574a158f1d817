package hushrise.core.project.timeline;

import java.util.Optional;

/**
 * One of several recordings of the same line: what a clip would play if this one were heard.
 *
 * @param mediaId its recording
 * @param startFrame where on the timeline it begins
 * @param lengthFrames how long it lasts there
 * @param mediaStartFrame where in the recording it begins
 * @param gainDb its gain
 */
public record Take(
    String mediaId, long startFrame, long lengthFrames, long mediaStartFrame, double gainDb) {

  public Take {
    if (lengthFrames < 1) {
      throw new IllegalArgumentException("A take must last at least one frame");
    }
  }

  /** The same, elsewhere on the timeline. */
  public Take movedBy(long frames) {
    return new Take(mediaId, startFrame + frames, lengthFrames, mediaStartFrame, gainDb);
  }

  /** What of it lies within a stretch of the timeline; empty if nothing does. */
  public Optional<Take> inside(long from, long to) {
    long start = Math.max(from, startFrame);
    long length = Math.min(to, startFrame + lengthFrames) - start;
    return length < 1
        ? Optional.empty()
        : Optional.of(
            new Take(mediaId, start, length, mediaStartFrame + start - startFrame, gainDb));
  }
}

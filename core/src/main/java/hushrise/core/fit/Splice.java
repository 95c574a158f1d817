package hushrise.core.fit;

/**
 * A jump, aligned to the sample.
 *
 * @param fromEdge the edge up to which the song plays
 * @param toEdge the edge that goes on
 * @param fromFrame the media frame in the middle of the crossfade on the side that ends
 * @param toFrame the media frame in the middle of the crossfade on the side that goes on
 * @param crossfadeFrames the crossfade's length
 * @param correlation how far both sides are the same wave there, 0 to 1
 * @param score how alike both sides sound, 0 to 1
 */
record Splice(
    int fromEdge,
    int toEdge,
    long fromFrame,
    long toFrame,
    long crossfadeFrames,
    double correlation,
    double score) {

  /** This splice going on {@code frames} earlier in the song. */
  Splice backBy(long frames) {
    return new Splice(
        fromEdge, toEdge, fromFrame, toFrame - frames, crossfadeFrames, correlation, score);
  }
}

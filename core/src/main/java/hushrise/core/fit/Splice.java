package hushrise.core.fit;

/**
 * A jump, aligned to the sample.
 *
 * @param fromFrame the media frame in the middle of the crossfade on the side that ends
 * @param toFrame the media frame in the middle of the crossfade on the side that goes on
 * @param crossfadeFrames the crossfade's length
 * @param correlation how far both sides are the same wave there, 0 to 1
 * @param score how alike both sides sound, 0 to 1
 * @param gainDb what evens the levels of both sides
 * @param evenFrames over how many frames that gain goes
 */
record Splice(
    long fromFrame,
    long toFrame,
    long crossfadeFrames,
    double correlation,
    double score,
    double gainDb,
    long evenFrames) {}

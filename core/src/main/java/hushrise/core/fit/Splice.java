package hushrise.core.fit;

import hushrise.core.project.timeline.Seam.Evening;
import java.util.Optional;

/**
 * A jump, aligned to the sample.
 *
 * @param fromFrame the media frame in the middle of the crossfade on the side that ends
 * @param toFrame the media frame in the middle of the crossfade on the side that goes on
 * @param crossfadeFrames the crossfade's length
 * @param correlation how far both sides are the same wave there, 0 to 1
 * @param score how alike both sides sound, 0 to 1
 * @param evening what evens the levels of both sides
 */
record Splice(
    long fromFrame,
    long toFrame,
    long crossfadeFrames,
    double correlation,
    double score,
    Optional<Evening> evening) {}

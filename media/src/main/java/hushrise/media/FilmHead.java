package hushrise.media;

import java.nio.file.Path;
import java.util.Optional;

/**
 * What a film's file says of itself.
 *
 * @param target where it goes
 * @param seconds how long it will be
 * @param sampleRate of its sound, in Hz
 * @param kbps of its sound; 0: the usual ones
 * @param title what it is called, where its source has no title; empty: nothing
 * @param comment such as its credits; empty: nothing
 * @param keepsTracks whether further sound tracks of its source go along
 */
record FilmHead(
    Path target,
    double seconds,
    int sampleRate,
    int kbps,
    Optional<String> title,
    Optional<String> comment,
    boolean keepsTracks) {}

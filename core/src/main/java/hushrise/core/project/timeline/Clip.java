package hushrise.core.project.timeline;

import com.fasterxml.jackson.annotation.JsonInclude;
import hushrise.core.Ids;
import hushrise.core.project.media.Media;
import hushrise.core.time.Span;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Optional;

/**
 * A piece of media on a track.
 *
 * @param id unique in the project
 * @param mediaId the id of the {@link Media} it plays
 * @param startFrame where it starts on the timeline
 * @param lengthFrames how long it is on the timeline, at least 1
 * @param mediaStartFrame the media frame it starts with
 * @param seams where its content jumps, in order of time; empty when it plays straight through
 * @param gainDb its own gain
 * @param fadeIn the fade at its start
 * @param fadeOut the fade at its end
 * @param crossfade how it takes over from a clip of its track that still sounds when it starts
 * @param fit how its length follows the picture; empty when it keeps its length
 * @param side which of a stereo medium's channels it plays
 * @param otherTakes what else was recorded in its place, the one to try next first
 */
@RecordBuilder
public record Clip(
    String id,
    String mediaId,
    long startFrame,
    long lengthFrames,
    long mediaStartFrame,
    List<Seam> seams,
    double gainDb,
    Fade fadeIn,
    Fade fadeOut,
    CrossfadeShape crossfade,
    Optional<Fit> fit,
    Side side,
    @JsonInclude(JsonInclude.Include.NON_EMPTY) List<Take> otherTakes)
    implements ClipBuilder.With {

  /** Its gain goes no higher, in dB. */
  public static final double MOST_GAIN_DB = 24;

  public Clip {
    if (lengthFrames < 1) {
      throw new IllegalArgumentException("A clip must last at least one frame");
    }
    seams = seams == null ? List.of() : List.copyOf(seams);
    fadeIn = fadeIn == null ? Fade.NONE : fadeIn;
    fadeOut = fadeOut == null ? Fade.NONE : fadeOut;
    crossfade = crossfade == null ? CrossfadeShape.EQUAL_POWER : crossfade;
    fit = fit == null ? Optional.empty() : fit;
    side = side == null ? Side.BOTH : side;
    otherTakes = otherTakes == null ? List.of() : List.copyOf(otherTakes);
  }

  /** A clip that keeps its length. */
  public Clip(
      String id,
      String mediaId,
      long startFrame,
      long lengthFrames,
      long mediaStartFrame,
      List<Seam> seams,
      double gainDb,
      Fade fadeIn,
      Fade fadeOut) {
    this(
        id,
        mediaId,
        startFrame,
        lengthFrames,
        mediaStartFrame,
        seams,
        gainDb,
        fadeIn,
        fadeOut,
        CrossfadeShape.EQUAL_POWER,
        Optional.empty(),
        Side.BOTH,
        List.of());
  }

  /** A still, which can be shown for any time. */
  public static Clip ofStill(Media still, long startFrame, long lengthFrames) {
    return whole(still, startFrame).withExtent(startFrame, lengthFrames, 0, List.of());
  }

  /** The whole of a media item, placed at a time. */
  public static Clip whole(Media media, long startFrame) {
    return new Clip(
        Ids.fresh("clip"),
        media.id(),
        startFrame,
        media.lengthFrames(),
        0,
        List.of(),
        0,
        Fade.NONE,
        Fade.NONE);
  }

  /** Whether a media item is played by it, or by another of its takes. */
  public boolean plays(String media) {
    return mediaId.equals(media) || otherTakes.stream().anyMatch(t -> t.mediaId().equals(media));
  }

  /** What of it would be another take. */
  public Take asTake() {
    return new Take(mediaId, startFrame, lengthFrames, mediaStartFrame, gainDb);
  }

  /** This clip with another take in the place of the one it plays. */
  public Clip withTake(Take take) {
    return withMediaId(take.mediaId())
        .withStartFrame(take.startFrame())
        .withLengthFrames(take.lengthFrames())
        .withMediaStartFrame(take.mediaStartFrame())
        .withGainDb(take.gainDb());
  }

  public long endFrame() {
    return startFrame + lengthFrames;
  }

  public Span span() {
    return Span.ofLength(startFrame, lengthFrames);
  }

  /**
   * The amplitude factor of both fades together at a timeline frame, 0 to 1. Before and after the
   * clip the fades' curves go on.
   */
  public double fadeFactorAt(long frame) {
    return fadeIn.factorAt(frame - startFrame) * fadeOut.factorAt(endFrame() - frame);
  }

  /**
   * The media frame that plays at a time; within a seam's crossfade the one that gives way before
   * its middle and the one that comes in after it.
   *
   * @param clipFrame frames from the clip's start
   */
  public long mediaFrameAt(long clipFrame) {
    long shift = mediaStartFrame;
    for (Seam seam : seams) {
      if (clipFrame < seam.atFrame()) {
        break;
      }
      shift = seam.toFrame() - seam.atFrame();
    }
    return shift + clipFrame;
  }

  /** This clip at another length, with other jumps in it. */
  public Clip withContent(long newLengthFrames, List<Seam> newSeams) {
    return with(b -> b.lengthFrames(newLengthFrames).seams(newSeams));
  }

  /** This clip with another stretch of its media at another place. */
  public Clip withExtent(long newStart, long newLength, long newMediaStart, List<Seam> newSeams) {
    return with(
        b ->
            b.startFrame(newStart)
                .lengthFrames(newLength)
                .mediaStartFrame(newMediaStart)
                .seams(newSeams));
  }

  /** This clip with fades that fit into it: both shortened alike where they would overlap. */
  public Clip withFittingFades() {
    long in = fadeIn.visibleFrames();
    long out = fadeOut.visibleFrames();
    if (in + out <= lengthFrames) {
      return this;
    }
    double scale = lengthFrames / (double) (in + out);
    return withFadeIn(fadeIn.withLength((long) (in * scale)))
        .withFadeOut(fadeOut.withLength((long) (out * scale)));
  }
}

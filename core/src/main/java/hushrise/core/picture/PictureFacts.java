package hushrise.core.picture;

import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;

/**
 * What was seen in a film's picture.
 *
 * @param cuts the frames at which a hard cut shows another picture, in order, in sample frames of
 *     the media
 * @param fadeToBlack where the picture fades out at its end, until it is black; empty without one
 */
public record PictureFacts(List<Long> cuts, Optional<Span> fadeToBlack) {

  public static final PictureFacts NONE = new PictureFacts(List.of(), Optional.empty());

  public PictureFacts {
    cuts = List.copyOf(cuts);
    fadeToBlack = fadeToBlack == null ? Optional.empty() : fadeToBlack;
  }
}

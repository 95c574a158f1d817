package hushrise.core.edit;

import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import java.util.List;

/**
 * Parts of clips: what sounds at a place stays there, whatever the clip's ends do. A part's seams
 * and fades are the whole clip's, seen from its own ends.
 */
final class ClipShape {

  private ClipShape() {}

  /**
   * The part of a clip from {@code offset} frames after its start on; with a negative offset the
   * clip with that much more of its media before it.
   */
  static Clip from(Clip clip, long offset) {
    List<Seam> seams =
        clip.seams().stream()
            .filter(s -> s.endFrame() > offset)
            .map(s -> s.earlierBy(offset))
            .toList();
    int passed = clip.seams().size() - seams.size();
    long shift = clip.mediaStartFrame();
    if (passed > 0) {
      Seam last = clip.seams().get(passed - 1);
      shift = last.toFrame() - last.atFrame();
    }
    return clip.withExtent(
        clip.startFrame() + offset, clip.lengthFrames() - offset, shift + offset, seams);
  }

  /**
   * The part of a clip up to {@code length} frames after its start; may be longer than the clip.
   */
  static Clip upTo(Clip clip, long length) {
    return clip.withContent(
        length, clip.seams().stream().filter(s -> s.startFrame() < length).toList());
  }

  /** The two halves of a clip, cut {@code offset} frames after its start. */
  static List<Clip> halves(Clip clip, long offset, String idOfSecond) {
    long rest = clip.lengthFrames() - offset;
    Clip first = upTo(clip, offset).withFadeOut(clip.fadeOut().begun(rest));
    Clip second = from(clip, offset).withFadeIn(clip.fadeIn().begun(offset)).withId(idOfSecond);
    return List.of(first, second);
  }

  /** How long a clip can be before its media runs out, in frames. */
  static long longest(Clip clip, Media media) {
    if (media.kind() == MediaKind.STILL) {
      return Long.MAX_VALUE / 4;
    }
    if (clip.seams().isEmpty()) {
      return media.lengthFrames() - clip.mediaStartFrame();
    }
    Seam last = clip.seams().getLast();
    return last.atFrame() + media.lengthFrames() - last.toFrame();
  }

  /** How far a clip's start can go back before its media's beginning, in frames. */
  static long roomBefore(Clip clip, Media media) {
    return media.kind() == MediaKind.STILL ? Long.MAX_VALUE / 4 : clip.mediaStartFrame();
  }
}

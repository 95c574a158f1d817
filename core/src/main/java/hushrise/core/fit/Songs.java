package hushrise.core.fit;

import hushrise.core.project.media.Media;
import java.util.Optional;

/** Where the songs of a project come from. */
@FunctionalInterface
public interface Songs {

  /** A library that knows no song: fits stay as they are. */
  Songs NONE = media -> Optional.empty();

  /** The song of a media item, if it has been analysed; never waits. */
  Optional<Song> song(Media media);

  /**
   * Up to which of its frames a media item serves as music: its end, or as long after the last one
   * that sounds as music usually takes to fade, where it goes on in silence.
   */
  default long lastsUntil(Media media) {
    return song(media)
        .map(Song::analysis)
        .map(s -> s.soundEnd() + s.frames(Fits.FADE_OUT_SECONDS))
        .filter(end -> end < media.lengthFrames())
        .orElse(media.lengthFrames());
  }
}

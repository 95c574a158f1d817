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
}

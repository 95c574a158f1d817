package hushrise.core.ride;

import java.util.Optional;

/** On which tracks a hand rides the level. */
@FunctionalInterface
public interface Hands {

  /** On none. */
  Hands NONE = trackId -> Optional.empty();

  /** The hand on a track. */
  Optional<Hand> of(String trackId);
}

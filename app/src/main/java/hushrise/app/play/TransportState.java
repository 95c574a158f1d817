package hushrise.app.play;

import java.util.Optional;
import java.util.Set;

/**
 * What the transport is doing. Each wish of a person begins another generation; whatever was asked
 * for in an earlier one comes too late and is let go.
 */
public sealed interface TransportState {

  long generation();

  /** Nothing sounds. */
  record Stopped(long generation) implements TransportState {}

  /**
   * The film sounds, and the playhead goes along.
   *
   * @param what which part of it
   */
  record Playing(long generation, Part what) implements TransportState {}

  /** Something else sounds than the film from its playhead, which stays where it is. */
  record Auditioning(long generation) implements TransportState {}

  /**
   * The film sounds and hands are on faders.
   *
   * @param what which part of it
   * @param trackIds whose
   */
  record Riding(long generation, Part what, Set<String> trackIds) implements TransportState {}

  /**
   * The film sounds and a take is spoken over it; or it is counted in, or rests.
   *
   * @param what which part of it
   * @param sounds whether the film sounds at this moment
   */
  record Recording(long generation, Part what, boolean sounds) implements TransportState {}

  /** Which part of the film sounds; empty when the playhead stays. */
  default Optional<Part> part() {
    return switch (this) {
      case Playing p -> Optional.of(p.what());
      case Riding r -> Optional.of(r.what());
      case Recording r -> Optional.of(r.what()).filter(part -> r.sounds());
      case Stopped s -> Optional.empty();
      case Auditioning a -> Optional.empty();
    };
  }

  default boolean isStopped() {
    return this instanceof Stopped;
  }
}

package hushrise.core.project.timeline;

/**
 * A jump within a piece of music that a person has decided about.
 *
 * @param fromFrame the media frame up to which it plays
 * @param toFrame the media frame that goes on
 */
public record Jump(long fromFrame, long toFrame) {

  /** Whether another jump is the same one to within some frames at both ends. */
  public boolean isNear(Jump other, long frames) {
    return Math.abs(fromFrame - other.fromFrame) <= frames
        && Math.abs(toFrame - other.toFrame) <= frames;
  }
}

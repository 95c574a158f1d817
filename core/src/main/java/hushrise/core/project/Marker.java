package hushrise.core.project;

/**
 * A named place on the timeline.
 *
 * @param id unique in the project
 * @param name as a person called it
 * @param frame where
 */
public record Marker(String id, String name, long frame) {

  public Marker withName(String newName) {
    return new Marker(id, newName, frame);
  }

  public Marker withFrame(long newFrame) {
    return new Marker(id, name, newFrame);
  }
}

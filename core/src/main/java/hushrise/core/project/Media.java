package hushrise.core.project;

import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Optional;

/**
 * A file on the Shelf, with the facts that are needed while the file itself is away.
 *
 * @param id unique in the project
 * @param file where it is, absolute
 * @param kind what it is for
 * @param lengthFrames how long it is, in sample frames at the project's rate
 * @param hasSound whether it carries sound
 * @param pictureRate the frame rate of its picture; empty without one
 * @param credit who made it and under which licence; possibly empty
 */
public record Media(
    String id,
    Path file,
    MediaKind kind,
    long lengthFrames,
    boolean hasSound,
    Optional<FrameRate> pictureRate,
    String credit) {

  public Media {
    pictureRate = pictureRate == null ? Optional.empty() : pictureRate;
    credit = credit == null ? "" : credit;
  }

  /** The file's name without its folder. */
  public String title() {
    Path name = file.getFileName();
    return name == null ? file.toString() : name.toString();
  }
}

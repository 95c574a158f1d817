package hushrise.core.ear;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;
import java.util.stream.Stream;

/** A file in the film that seems to have been cut off, as by a download that broke. */
public final class CutShortFile implements EarRule {

  /** Its name. */
  public static final String ID = "media.cutShort";

  CutShortFile() {}

  @Override
  public String id() {
    return ID;
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    return project.shelf().stream()
        .filter(Media::cutShort)
        .flatMap(m -> finding(project, m))
        .toList();
  }

  private Stream<Finding> finding(Project project, Media media) {
    for (Track track : project.tracks()) {
      for (Clip clip : track.clips()) {
        if (clip.mediaId().equals(media.id())) {
          double seconds = media.lengthFrames() / (double) project.sampleRate();
          return Stream.of(
              new Finding(
                  ID,
                  media.id(),
                  clip.span(),
                  track.id(),
                  List.of(media.title(), seconds),
                  List.of()));
        }
      }
    }
    return Stream.empty();
  }
}

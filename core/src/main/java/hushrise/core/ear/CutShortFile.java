package hushrise.core.ear;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;

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
        .flatMap(m -> project.firstClipOf(m.id()).map(c -> finding(project, m, c)).stream())
        .toList();
  }

  private static Finding finding(Project project, Media media, Clip clip) {
    return new Finding(
        ID,
        media.id(),
        clip.span(),
        project.trackOfClip(clip.id()).map(Track::id).orElse(""),
        List.of(media.title(), project.seconds(media.lengthFrames())),
        List.of());
  }
}

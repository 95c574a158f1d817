package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;
import java.util.Optional;

/** Music in the film of which nobody has noted who made it. */
final class NoCredit implements EarRule {

  @Override
  public String id() {
    return "media.noCredit";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    return project.shelf().stream()
        .filter(m -> m.kind() == MediaKind.MUSIC && m.credit().isBlank())
        .flatMap(m -> first(project, m).map(c -> finding(project, m, c)).stream())
        .toList();
  }

  private static Optional<Clip> first(Project project, Media media) {
    return project.tracks().stream()
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.mediaId().equals(media.id()))
        .findFirst();
  }

  private Finding finding(Project project, Media media, Clip clip) {
    String bare = media.title().replaceFirst("\\.[^.]+$", "");
    String credit = "\u201c" + bare + "\u201d, maker and licence not known";
    return new Finding(
        id(),
        media.id(),
        clip.span(),
        project.trackOfClip(clip.id()).map(Track::id).orElse(""),
        List.of(media.title()),
        List.of(
            new Remedy(
                "remedy.credit",
                List.of(credit),
                now -> ShelfEdits.setCredit(now, media.id(), credit))));
  }
}

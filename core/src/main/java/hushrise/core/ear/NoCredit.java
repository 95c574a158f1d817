package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;

/** Music in the film of which nobody has noted who made it. */
public final class NoCredit implements EarRule {

  /** Its name. */
  public static final String ID = "media.noCredit";

  NoCredit() {}

  @Override
  public String id() {
    return ID;
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    return project.shelf().stream()
        .filter(m -> m.kind() == MediaKind.MUSIC && isMissing(m.credit()))
        .flatMap(m -> project.firstClipOf(m.id()).map(c -> finding(project, m, c)).stream())
        .toList();
  }

  /** Nothing is noted, or less than the licence asks for. */
  private static boolean isMissing(Credit credit) {
    return credit.isEmpty() || credit.isMissingWhatItOwes();
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
                now ->
                    ShelfEdits.setCredit(
                        now,
                        media.id(),
                        media.credit().isEmpty()
                            ? Credit.ofNote(credit)
                            : media.credit().withNote("maker not known")))));
  }
}

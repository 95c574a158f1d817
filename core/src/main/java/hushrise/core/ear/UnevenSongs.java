package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.EvenSongs;
import hushrise.core.edit.EvenSongs.Change;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import java.util.List;

/** A song that is much louder or softer than the one it follows. */
final class UnevenSongs implements EarRule {

  @Override
  public String id() {
    return "songs.uneven";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    return EvenSongs.changes(heard.project(), heard.loudness()).stream()
        .filter(c -> Math.abs(c.louderLu()) > EvenSongs.MOST_LU)
        .map(c -> finding(c, heard))
        .toList();
  }

  private Finding finding(Change change, Heard heard) {
    Project project = heard.project();
    return new Finding(
        id(),
        change.after().id(),
        change.after().span(),
        change.track().id(),
        List.of(
            title(project, change.after()),
            Math.abs(change.louderLu()),
            Math.signum(change.louderLu()),
            title(project, change.before())),
        List.of(
            new Remedy(
                "remedy.songAsBefore", now -> EvenSongs.asBefore(now, change, heard.loudness()))));
  }

  private static String title(Project project, Clip clip) {
    return project.media(clip.mediaId()).orElseThrow().title();
  }
}

package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.LoudMusic;
import hushrise.core.edit.LoudMusic.Standing;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;

/** Music that is much louder where nobody speaks than the voice is. */
final class MusicOverVoice implements EarRule {

  /** Less is not worth an edit, in dB. */
  private static final double LEAST_DB = 1;

  @Override
  public String id() {
    return "music.overVoice";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    return LoudMusic.of(heard.energies(), heard.loudness())
        .filter(Standing::isTooLoud)
        .map(s -> finding(s, heard))
        .stream()
        .toList();
  }

  private Finding finding(Standing standing, Heard heard) {
    Project project = heard.project();
    double louder = standing.louderLu();
    double raise = LoudMusic.raiseDb(project, standing, heard.loudness());
    double rest = Math.max(0, louder - raise);
    List<Remedy> remedies = new ArrayList<>();
    if (raise >= LEAST_DB) {
      remedies.add(
          new Remedy(
              rest == 0 ? "remedy.raiseVoice" : "remedy.raiseVoiceLowerMusic",
              rest == 0 ? List.of(raise) : List.of(raise, rest),
              now -> LoudMusic.raise(now, raise, rest)));
    }
    remedies.add(
        new Remedy("remedy.lowerMusic", List.of(louder), now -> LoudMusic.lower(now, louder)));
    return new Finding(
        id(),
        "music",
        standing.loudest(),
        MusicClips.heardMusic(project).findFirst().map(Track::id).orElse(""),
        List.of(louder),
        remedies);
  }
}

package hushrise.core.hush;

import hushrise.core.project.Project;
import hushrise.core.project.level.HushRule.RiseRule;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.EnergySteps;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * Drafts the rises of a track in the gaps where nobody speaks: from the recovery of the hush before
 * to the fall of the hush after, as high as the rule wants. Rises made by hand are left alone.
 */
final class RiseDrafter {

  private static final double LEAST_RISE_DB = 0.5;

  private final Project drafted;
  private final Energies bare;
  private final RiseRule rule;

  /**
   * @param drafted the project with its drafted hushes and without drafted rises
   * @param bare energies before any of them
   */
  RiseDrafter(Project drafted, Energies bare, RiseRule rule) {
    this.drafted = drafted;
    this.bare = bare;
    this.rule = rule;
  }

  /**
   * @param before the track before the draft: rises in the place of its drafted ones keep their id
   * @param voices the tracks that count as voice
   */
  List<Rise> rises(Track before, Predicate<Track> voices) {
    EnergySteps voice = bare.sum(voices);
    List<Span> passages = Passages.of(drafted, voices);
    Track track = drafted.track(before.id()).orElseThrow();
    RiseGaps gaps = new RiseGaps(drafted, track.id());
    List<Rise> found = new ArrayList<>();
    for (int i = 0; i <= passages.size(); i++) {
      long from = i == 0 ? 0 : passages.get(i - 1).endFrame();
      long to = i == passages.size() ? drafted.lengthFrames() : passages.get(i).startFrame();
      if (to - from >= drafted.frames(rule.shortestGapSeconds())) {
        List<Span> around = passages.subList(Math.max(0, i - 1), Math.min(passages.size(), i + 1));
        double loudness =
            around.stream().mapToDouble(p -> bare.lufs(voice, p)).average().orElse(Double.NaN);
        rise(track, gaps, (from + to) / 2, loudness).ifPresent(r -> found.add(known(r, before)));
      }
    }
    return found;
  }

  private static Rise known(Rise rise, Track before) {
    return before.rises().stream()
        .filter(old -> old.drafted() && old.span().overlaps(rise.span()))
        .findFirst()
        .map(old -> rise.withId(old.id()))
        .orElse(rise);
  }

  private Optional<Rise> rise(Track track, RiseGaps gaps, long frame, double voiceLufs) {
    Optional<Rise> rise =
        gaps.rise(frame, 0)
            .filter(r -> track.rises().stream().noneMatch(o -> o.span().overlaps(r.span())));
    if (rise.isEmpty()) {
      return rise;
    }
    double bed = bare.lufs(bare.track(track.id()), rise.get().span());
    double height = Math.min(rule.highestDb(), voiceLufs + rule.aboveVoiceLu() - bed);
    return height >= LEAST_RISE_DB
        ? Optional.of(rise.get().withHeightDb(height).withDrafted(true))
        : Optional.empty();
  }
}

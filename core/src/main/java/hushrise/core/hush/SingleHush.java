package hushrise.core.hush;

import hushrise.core.edit.HushEdits;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.EnergySteps;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** Reckons one hush, for a person who asks for it at one place. */
public final class SingleHush {

  private static final double CLOSE_ENOUGH_LU = 0.02;
  private static final int MOST_ROUNDS = 5;

  private SingleHush() {}

  /**
   * A hush for one passage of a track, as deep as the track's rule needs with everything else as it
   * is; empty when the voice stands clear without one. The track's other hushes stay.
   *
   * @param turn the times to give it
   */
  public static Optional<Hush> of(
      Project project,
      LoudnessLibrary library,
      Energies known,
      String trackId,
      Span passage,
      Turn turn) {
    Track track = project.track(trackId).orElseThrow();
    HushRule rule = HushDrafter.ruleOf(track).orElse(HushRule.of(HushRule.AMBIENCE_LU));
    Track without =
        track.withHushes(
            track.hushes().stream().filter(h -> !h.passage().equals(passage)).toList());
    Energies bare = known.following(project.withTrack(trackId, t -> without), library);
    Predicate<Track> heard = project.heardTracks();
    EnergySteps voice = bare.sum(HushDrafter.voices(project, rule.voices()));
    EnergySteps others = bare.sum(heard.and(Track::isBackground).and(t -> !t.id().equals(trackId)));
    Hush hush = Hush.over(passage, 0).withTurn(turn);
    int from = bare.stepAt(passage.startFrame());
    int to = Math.max(bare.stepAt(passage.endFrame()), Math.min(bare.count(), from + 1));
    for (int round = 0; round < MOST_ROUNDS; round++) {
      Hush tried = hush;
      Energies placed = tried.depthDb() == 0 ? bare : bare.with(withMore(without, tried), library);
      Need need = Need.of(from, to, voice, others, List.of(placed.track(trackId)), List.of(rule));
      double more = need.depthsDb().getFirst();
      if (rule.fixedDepthDb().isPresent()) {
        return more < 0 ? Optional.of(hush.withDepthDb(more)) : Optional.empty();
      }
      hush = hush.withDepthDb(Math.max(rule.deepestDb(), hush.depthDb() + more));
      if (more > -CLOSE_ENOUGH_LU || need.othersTooLoud()) {
        break;
      }
    }
    boolean usual = turn.equals(rule.turn());
    Hush marked = usual ? hush : hush.withByHand(timesOf(rule.turn(), turn));
    return hush.depthDb() < 0 ? Optional.of(marked) : Optional.empty();
  }

  private static Track withMore(Track track, Hush hush) {
    List<Hush> more = new ArrayList<>(track.hushes());
    more.add(hush);
    return track.withHushes(more);
  }

  private static Set<HushNumber> timesOf(Turn usual, Turn turn) {
    Hush hush = Hush.over(new Span(0, 1), 0).withTurn(usual);
    return HushEdits.byHand(hush, hush.withTurn(turn)).byHand();
  }
}

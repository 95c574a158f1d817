package hushrise.core.hush;

import hushrise.core.Ids;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** The gaps of a track between the passages of speech, each of which a rise can fill. */
public final class RiseGaps {

  private final Track track;
  private final int rate;
  private final List<Hush> floors;

  /** The gaps of a track as it now is. */
  public RiseGaps(Project project, String trackId) {
    track = project.track(trackId).orElseThrow();
    rate = project.sampleRate();
    floors = floors(project, track);
  }

  /**
   * A rise for the gap around a time: from where the hush before it begins to recover to where the
   * next one has fallen, both turns lying on those of the hushes, so that the music goes from floor
   * to height in one move. A passage that has no hush, as the music is soft enough there, ends the
   * gap as one of no depth would. With nothing around the rise reaches to the ends of the clip.
   *
   * @return empty when the time lies on a hush's floor, under speech, or where no clip is
   */
  public Optional<Rise> rise(long frame, double heightDb) {
    Optional<Clip> clip = track.clips().stream().filter(c -> c.span().contains(frame)).findFirst();
    boolean onFloor =
        floors.stream()
            .map(h -> h.knots(rate))
            .anyMatch(k -> frame >= k.floorStart() && frame < k.floorEnd());
    if (clip.isEmpty() || onFloor) {
      return Optional.empty();
    }
    Optional<Hush> before =
        floors.stream()
            .filter(h -> h.knots(rate).floorEnd() <= frame)
            .max(Comparator.comparingLong(h -> h.knots(rate).floorEnd()));
    Optional<Hush> after =
        floors.stream()
            .filter(h -> h.knots(rate).floorStart() > frame)
            .min(Comparator.comparingLong(h -> h.knots(rate).floorStart()));
    return Optional.of(
        new Rise(
            Ids.fresh("rise"),
            before.map(h -> h.knots(rate).floorEnd()).orElse(clip.get().startFrame()),
            after.map(h -> h.knots(rate).floorStart()).orElse(clip.get().endFrame()),
            heightDb,
            before.map(h -> h.turn().recoverySeconds()).orElse(1.0),
            after.map(h -> h.turn().fallSeconds()).orElse(1.0)));
  }

  /** A track's hushes, and one of no depth for each passage that none of them lies under. */
  private static List<Hush> floors(Project project, Track track) {
    Optional<HushRule> rule = HushDrafter.ruleOf(track);
    Turn turn = rule.map(HushRule::turn).orElse(Turn.DEFAULT);
    Predicate<Track> voices =
        HushDrafter.voices(project, rule.map(HushRule::voices).orElse(List.of()));
    Stream<Hush> unhushed =
        Passages.of(project, voices).stream()
            .filter(p -> track.hushes().stream().noneMatch(h -> liesUnder(h, p)))
            .map(p -> Hush.over(p, 0).withTurn(turn));
    return Stream.concat(track.hushes().stream(), unhushed).toList();
  }

  private static boolean liesUnder(Hush hush, Span passage) {
    return HushDrafter.overlap(hush.passage(), passage) * 2 > passage.lengthFrames();
  }
}

package hushrise.core.hush;

import hushrise.core.edit.HushEdits;
import hushrise.core.project.Hush;
import hushrise.core.project.Project;
import hushrise.core.project.TrackKind;
import hushrise.core.project.Turn;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Plans the hushes that keep the voice a wanted separation above everything under it.
 *
 * <p>Depth per passage: {@code min(0, voice - background - wanted)} with gated loudness over the
 * passage. Passages closer than {@link #SHORTEST_GAP_SECONDS} share one hush, as deep as the
 * neediest needs, so that the music does not pump. Only music is hushed; where other background
 * remains under it, the first reckoning falls short, so the result is measured as it will sound and
 * the shortage is taken off the music again, until it is met or more depth no longer helps.
 */
public final class HushPlanner {

  /** Passages closer than this share a hush. */
  public static final double SHORTEST_GAP_SECONDS = 1.5;

  private static final double DEEPEST_DB = -40;
  private static final double CLOSE_ENOUGH_LU = 0.02;
  private static final int MOST_ROUNDS = 8;

  private HushPlanner() {}

  /** The project with a fresh set of hushes on every music track. */
  public static Project withHushes(
      Project project, SoundLibrary library, List<Span> passages, double wantedSeparationLu) {
    List<Span> shared = Passages.joined(passages, project.frames(SHORTEST_GAP_SECONDS) - 1);
    List<Hush> hushes = shared.stream().map(span -> Hush.over(span, 0)).toList();
    Project planned = withMusicHushes(project, hushes);
    for (int round = 0; round < MOST_ROUNDS; round++) {
      List<PassageLoudness> measured = PassageLoudness.measure(planned, library, passages);
      List<Hush> deeper = new ArrayList<>();
      double most = 0;
      for (Hush hush : hushes) {
        double missing = missingDb(hush, measured, wantedSeparationLu);
        double depth = Math.max(DEEPEST_DB, hush.depthDb() + missing);
        most = Math.max(most, hush.depthDb() - depth);
        deeper.add(hush.withDepthDb(depth));
      }
      if (most <= CLOSE_ENOUGH_LU) {
        break;
      }
      hushes = deeper;
      planned = withMusicHushes(project, hushes);
    }
    return withMusicHushes(project, hushes.stream().filter(h -> h.depthDb() < 0).toList());
  }

  /**
   * A hush for one passage of a track, as deep as the wanted separation needs with everything else
   * as it is; empty when the voice stands clear without one. The track's other hushes stay.
   *
   * @param turn the times to give it
   */
  public static Optional<Hush> hushFor(
      Project project,
      SoundLibrary library,
      String trackId,
      Span passage,
      Turn turn,
      double wantedSeparationLu) {
    Hush hush = Hush.over(passage, 0).withTurn(turn);
    for (int round = 0; round < MOST_ROUNDS; round++) {
      Hush tried = hush;
      Project with = HushEdits.add(project, trackId, tried);
      double missing =
          PassageLoudness.measure(with, library, List.of(passage))
              .getFirst()
              .depthForDb(wantedSeparationLu);
      double depth = Math.max(DEEPEST_DB, hush.depthDb() + missing);
      boolean closeEnough = hush.depthDb() - depth <= CLOSE_ENOUGH_LU;
      hush = hush.withDepthDb(depth);
      if (closeEnough) {
        break;
      }
    }
    return hush.depthDb() < 0 ? Optional.of(hush) : Optional.empty();
  }

  private static double missingDb(Hush hush, List<PassageLoudness> measured, double wanted) {
    return measured.stream()
        .filter(
            m ->
                m.passage().startFrame() < hush.endFrame()
                    && hush.startFrame() < m.passage().endFrame())
        .mapToDouble(m -> m.depthForDb(wanted))
        .min()
        .orElse(0);
  }

  private static Project withMusicHushes(Project project, List<Hush> hushes) {
    return project.withTracks(
        project.tracks().stream()
            .map(t -> t.kind() == TrackKind.MUSIC ? t.withHushes(hushes) : t)
            .toList());
  }
}

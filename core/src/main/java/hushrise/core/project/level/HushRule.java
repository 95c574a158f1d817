package hushrise.core.project.level;

import hushrise.core.project.media.TrackKind;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * How hushes are drafted on a background track.
 *
 * @param voices the voice tracks that count, by id; empty: all
 * @param separationLu how far the voice is to stand above everything under it
 * @param fixedDepthDb a depth for all hushes in place of the separation; at most 0
 * @param turn the four times around a passage
 * @param shortestGapSeconds passages closer than this share the floor, so that the music does not
 *     pump
 * @param deepestDb no hush goes deeper
 * @param shallowestDb no hush stays higher; 0: as high as the separation lets it
 * @param even whether hushes near one another get one depth, that of the deepest
 * @param rises how rises are drafted in the gaps; empty: not at all
 */
@RecordBuilder
public record HushRule(
    List<String> voices,
    double separationLu,
    OptionalDouble fixedDepthDb,
    Turn turn,
    double shortestGapSeconds,
    double deepestDb,
    double shallowestDb,
    boolean even,
    Optional<RiseRule> rises)
    implements HushRuleBuilder.With {

  /** What music is held under the voice unless said otherwise, in LU. */
  public static final double MUSIC_LU = 10;

  /** What everything else is held under the voice unless said otherwise, in LU. */
  public static final double AMBIENCE_LU = 15;

  /**
   * Passages closer than this share the floor unless said otherwise: with the usual turns the music
   * would be up for less than two seconds between them, which is heard as pumping.
   */
  public static final double SHORTEST_GAP_SECONDS = 2.2;

  public HushRule {
    voices = voices == null ? List.of() : List.copyOf(voices);
    fixedDepthDb = fixedDepthDb == null ? OptionalDouble.empty() : fixedDepthDb;
    rises = rises == null ? Optional.empty() : rises;
    shortestGapSeconds = Math.max(0, shortestGapSeconds);
    if (!(deepestDb <= shallowestDb && shallowestDb <= 0)) {
      throw new IllegalArgumentException(
          "No rule: from " + deepestDb + " to " + shallowestDb + " dB");
    }
  }

  /** The usual rule for a separation. */
  public static HushRule of(double separationLu) {
    return new HushRule(
        List.of(),
        separationLu,
        OptionalDouble.empty(),
        Turn.DEFAULT,
        SHORTEST_GAP_SECONDS,
        -40,
        0,
        false,
        Optional.empty());
  }

  /**
   * The rule that a track goes by while nobody has given it one: music and camera sound are hushed,
   * effects are not.
   */
  public static Optional<HushRule> usualFor(TrackKind kind) {
    return switch (kind) {
      case MUSIC -> Optional.of(of(MUSIC_LU));
      case CAMERA -> Optional.of(of(AMBIENCE_LU));
      default -> Optional.empty();
    };
  }

  /** With a separation to go by, in place of one depth for all. */
  public HushRule goingBy(double lu) {
    return with(b -> b.separationLu(lu).fixedDepthDb(OptionalDouble.empty()));
  }

  /** With limits of depth, each at most 0; the deeper of the two counts as the deepest. */
  public HushRule withDepths(double oneDb, double otherDb) {
    return with(
        b ->
            b.deepestDb(Math.min(oneDb, otherDb))
                .shallowestDb(Math.min(0, Math.max(oneDb, otherDb))));
  }

  /**
   * How rises are drafted in the gaps between passages.
   *
   * @param shortestGapSeconds only where nobody speaks for this long
   * @param aboveVoiceLu how loud the music is to get, seen from the voices around the gap
   * @param highestDb no rise goes higher
   */
  public record RiseRule(double shortestGapSeconds, double aboveVoiceLu, double highestDb) {

    public static final RiseRule USUAL = new RiseRule(4, 0, 6);

    /** Rises all as high, however loud the music then gets. */
    public static RiseRule of(double heightDb) {
      return new RiseRule(USUAL.shortestGapSeconds(), 1_000, heightDb);
    }
  }
}

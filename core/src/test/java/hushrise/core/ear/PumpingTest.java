package hushrise.core.ear;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDrafter;
import hushrise.core.hush.Talk;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.media.TrackKind;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Whether music comes up between passages only to go down again. */
class PumpingTest {

  @Test
  void musicThatPumps() {
    Talk near = new Talk(30, new double[] {4, 8}, new double[] {9.6, 13});
    HushRule eager = HushRule.of(HushRule.MUSIC_LU).withShortestGapSeconds(1.5);
    Project ruled = near.project.withTrack(near.music().id(), t -> t.withRule(Optional.of(eager)));
    Project drafted = HushDrafter.draft(ruled, near.sounds).after();
    List<Hush> hushes = drafted.firstTrack(TrackKind.MUSIC).orElseThrow().hushes();
    assertThat(hushes).hasSize(2);
    List<Finding> found = pumping(drafted, near);
    assertThat(found).hasSize(1);
    Project merged = found.getFirst().remedies().getFirst().edit().apply(drafted);
    assertThat(merged.firstTrack(TrackKind.MUSIC).orElseThrow().hushes()).hasSize(1);
  }

  @ParameterizedTest
  @ValueSource(doubles = {0.5, 1.4, 1.6, 2, 2.1, 2.19, 2.21, 2.3, 3})
  void aDraftByTheUsualRuleDoesNotPump(double gapSeconds) {
    Talk talk = new Talk(30, new double[] {4, 8}, new double[] {8 + gapSeconds, 12 + gapSeconds});
    Project drafted = HushDrafter.draft(talk.project, talk.sounds).after();
    assertThat(drafted.firstTrack(TrackKind.MUSIC).orElseThrow().hushes())
        .hasSize(gapSeconds < 2.2 ? 1 : 2);
    assertThat(pumping(drafted, talk)).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({"1.5, -6, 1", "1.5, -10, 0", "2.5, -6, 0"})
  void aFloorThatIsHigherForAMoment(double seconds, double depthDb, int findings) {
    Talk talk = new Talk(30, new double[] {4, 20});
    Span high = new Span(Talk.at(10), Talk.at(10.15 + seconds));
    List<Hush> hushes =
        List.of(
            Hush.over(new Span(Talk.at(4), high.startFrame()), -12),
            Hush.over(high, depthDb),
            Hush.over(new Span(high.endFrame(), Talk.at(20)), -14));
    List<Finding> found =
        pumping(talk.project.withTrack(talk.music().id(), t -> t.withHushes(hushes)), talk);
    assertThat(found).hasSize(findings);
  }

  private static List<Finding> pumping(Project drafted, Talk talk) {
    Energies energies = Energies.of(drafted, talk.sounds);
    return new Pumping()
        .hear(new Heard(energies, Separation.of(energies, 10), talk.sounds, Songs.NONE, List.of()));
  }
}

package hushrise.core.hush;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.project.level.HushRule;
import hushrise.core.separation.EnergySteps;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;

/** Depths for steady sounds, whose separation can be reckoned by hand. */
class NeedTest {

  private static final int STEPS = 300;

  /** The energies of a steady sound, in dB over that of an arbitrary one. */
  private static EnergySteps steady(double db) {
    float[] energies = new float[STEPS];
    Arrays.fill(energies, (float) (0.01 * Math.pow(10, db / 10)));
    return EnergySteps.of(energies);
  }

  private static final EnergySteps NOTHING = EnergySteps.silent(STEPS);

  private static Need need(EnergySteps others, List<EnergySteps> tracks, List<HushRule> rules) {
    return Need.of(0, STEPS, steady(0), others, tracks, rules);
  }

  private static double sumDb(double... dbs) {
    return 10 * Math.log10(Arrays.stream(dbs).map(db -> Math.pow(10, db / 10)).sum());
  }

  @Test
  void aTrackAloneGoesDownByWhatIsMissing() {
    Need need = need(NOTHING, List.of(steady(-4)), List.of(HushRule.of(10)));
    assertThat(need.depthsDb().getFirst()).isCloseTo(-6, within(0.01));
    assertThat(need.voiceLufs() - need.backgroundLufs()).isCloseTo(4, within(0.01));
    assertThat(need.othersTooLoud()).isFalse();
  }

  @Test
  void twoThatAskForTheSameGoFurtherTogether() {
    List<HushRule> rules = List.of(HushRule.of(10), HushRule.of(10));
    Need need = need(NOTHING, List.of(steady(-10), steady(-10)), rules);
    assertThat(need.depthsDb()).allSatisfy(d -> assertThat(d).isCloseTo(-3.01, within(0.01)));
  }

  @Test
  void onlyTheTrackThatAsksForLeastMakesRoomForTheSum() {
    List<HushRule> rules = List.of(HushRule.of(10), HushRule.of(15));
    Need need = need(NOTHING, List.of(steady(-10), steady(-15)), rules);
    assertThat(need.depthsDb().get(1)).isZero();
    double music = need.depthsDb().getFirst();
    assertThat(music).isNegative();
    assertThat(sumDb(-10 + music, -15)).isCloseTo(-10, within(0.01));
  }

  @Test
  void aFixedDepthIsNotMadeDeeper() {
    HushRule fixed = HushRule.of(10).withFixedDepthDb(OptionalDouble.of(-3));
    Need need = need(NOTHING, List.of(steady(-8), steady(-16)), List.of(fixed, HushRule.of(10)));
    assertThat(need.depthsDb().getFirst()).isEqualTo(-3);
    assertThat(sumDb(-11, -16 + need.depthsDb().get(1))).isCloseTo(-10, within(0.01));
  }

  @Test
  void whereOthersAreTooLoudATrackOnlyStopsAddingToThem() {
    Need need = need(steady(-6), List.of(steady(-6)), List.of(HushRule.of(10)));
    assertThat(need.othersTooLoud()).isTrue();
    double depth = need.depthsDb().getFirst();
    assertThat(sumDb(-6, -6 + depth) + 6).isCloseTo(0.4, within(0.01));
  }

  @Test
  void aRuleSaysHowDeepIsTooDeep() {
    HushRule shallow = HushRule.of(10).withDepths(-5, 0);
    Need need = need(NOTHING, List.of(steady(2)), List.of(shallow));
    assertThat(need.depthsDb().getFirst()).isEqualTo(-5);
  }

  @Test
  void aSilentVoiceNeedsNothing() {
    Need need = Need.of(0, STEPS, NOTHING, NOTHING, List.of(steady(0)), List.of(HushRule.of(10)));
    assertThat(need.depthsDb()).containsExactly(0.0);
  }
}

package hushrise.core.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.mix.Projects;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;

class PeaksTest {

  private static final float[] LEFT = Projects.noise(1, 100_003, 0.8);
  private static final float[] RIGHT = Projects.noise(2, 100_003, 0.4);
  private static final Peaks PEAKS = PeakBuilder.of(SampleSource.of(LEFT, RIGHT));

  @Property(tries = 300)
  void aStretchHasTheExtremesOfItsBuckets(
      @ForAll @IntRange(max = 100_002) int from,
      @ForAll @IntRange(min = 1, max = 60_000) int length) {
    float[] found = new float[3];
    int to = Math.min(from + length, LEFT.length);
    PEAKS.over(from, to, found);
    float min = 0;
    float max = 0;
    for (int i = from; i < to; i++) {
      min = Math.min(min, Math.min(LEFT[i], RIGHT[i]));
      max = Math.max(max, Math.max(LEFT[i], RIGHT[i]));
    }
    assertThat(found[0]).isLessThanOrEqualTo(min);
    assertThat(found[1]).isGreaterThanOrEqualTo(max);
    assertThat(found[1]).isLessThanOrEqualTo(0.8f);
  }

  @Property(tries = 50)
  void theRmsOfALongStretchIsThatOfItsSamples(@ForAll @IntRange(max = 20_000) int from) {
    float[] found = new float[3];
    PEAKS.over(from, from + 70_000.0, found);
    double sum = 0;
    for (int i = from; i < from + 70_000; i++) {
      sum += (LEFT[i] * (double) LEFT[i] + RIGHT[i] * (double) RIGHT[i]) / 2;
    }
    assertThat((double) found[2]).isCloseTo(Math.sqrt(sum / 70_000), within(0.01));
  }

  @Property(tries = 20)
  void outsideTheSoundThereIsNothing(@ForAll @IntRange(min = 1, max = 5_000) int away) {
    float[] found = {9, 9, 9};
    PEAKS.over(LEFT.length + (double) away, LEFT.length + away + 10.0, found);
    assertThat(found).containsExactly(0, 0, 0);
    PEAKS.over(-away - 10.0, -away, found);
    assertThat(found).containsExactly(0, 0, 0);
  }
}

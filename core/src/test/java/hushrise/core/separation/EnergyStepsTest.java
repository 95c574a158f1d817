package hushrise.core.separation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class EnergyStepsTest {

  private static final int COUNT = 10_000;

  @Test
  void silenceHasNoEnergyAnywhere() {
    EnergySteps silent = EnergySteps.silent(COUNT);
    assertThat(silent.count()).isEqualTo(COUNT);
    assertThat(silent.mean(0, COUNT)).isZero();
    assertThat(silent.at(COUNT - 1)).isZero();
  }

  @Test
  void theMeanIsThatOfTheStepsAsked() {
    EnergySteps steps = EnergySteps.of(1, 2, 3, 4);
    assertThat(steps.mean(1, 3)).isEqualTo(2.5);
    assertThat(steps.mean(2, 2)).isZero();
  }

  /** Against arrays, with long silences in both and ends of chunks anywhere. */
  @Property(tries = 100)
  void whatOthersHaveIsAddedWithinTheChangeAlone(
      @ForAll long seed,
      @ForAll @IntRange(max = COUNT) int oneEnd,
      @ForAll @IntRange(max = COUNT) int otherEnd) {
    Random random = new Random(seed);
    float[] was = withSilences(random);
    float[] first = withSilences(random);
    float[] second = withSilences(random);
    EnergySteps before = EnergySteps.of(was);
    int from = Math.min(oneEnd, otherEnd);
    int to = Math.max(oneEnd, otherEnd);
    EnergySteps.Change change = before.change(from, to);
    change.add(EnergySteps.of(first));
    change.add(EnergySteps.of(second));
    EnergySteps after = change.done();
    for (int i = 0; i < COUNT; i++) {
      float expected = i >= from && i < to ? first[i] + second[i] : was[i];
      assertThat(after.at(i)).as("step %d", i).isEqualTo(expected);
      assertThat(before.at(i)).as("step %d before", i).isEqualTo(was[i]);
    }
    assertThat(EnergySteps.silent(COUNT).mean(0, COUNT)).as("silence itself").isZero();
  }

  private static float[] withSilences(Random random) {
    float[] array = new float[COUNT];
    for (int at = 0; at < COUNT; ) {
      int end = Math.min(COUNT, at + 1 + random.nextInt(5_000));
      boolean sounds = random.nextBoolean();
      for (; at < end; at++) {
        array[at] = sounds ? random.nextFloat() : 0;
      }
    }
    return array;
  }

  /** As with hundreds of tracks that each sound for a moment of two hours. */
  @Test
  void silenceTakesNoMemory() {
    int steps = 2 * 3600 * 100;
    ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    long before = threads.getCurrentThreadAllocatedBytes();
    for (int track = 0; track < 100; track++) {
      EnergySteps.Change change = EnergySteps.silent(steps).change(0, steps);
      change.add(track * 1_000, 1);
      assertThat(change.done().at(track * 1_000)).isEqualTo(1);
    }
    assertThat(threads.getCurrentThreadAllocatedBytes() - before).isLessThan(10_000_000);
  }

  /** Against an array that is changed in the same way; the version before stays as it was. */
  @Property(tries = 100)
  void aChangeFillsItsStepsAnewAndLeavesTheVersionBeforeAlone(
      @ForAll long seed,
      @ForAll @IntRange(max = COUNT) int oneEnd,
      @ForAll @IntRange(max = COUNT) int otherEnd) {
    Random random = new Random(seed);
    float[] array = new float[COUNT];
    for (int i = 0; i < COUNT; i++) {
      array[i] = random.nextFloat();
    }
    EnergySteps before = EnergySteps.of(array);
    int from = Math.min(oneEnd, otherEnd);
    int to = Math.max(oneEnd, otherEnd);
    EnergySteps.Change change = before.change(from, to);
    float[] expected = array.clone();
    for (int i = from; i < to; i++) {
      float value = random.nextFloat();
      expected[i] = value;
      change.add(i, value / 2);
      change.add(i, value / 2);
    }
    EnergySteps after = change.done();
    assertThat(after.hasSameEnergies(before)).isEqualTo(from == to);
    for (int i = 0; i < COUNT; i++) {
      assertThat(after.at(i)).as("step %d", i).isCloseTo(expected[i], within(1e-7));
      assertThat(before.at(i)).as("step %d before", i).isEqualTo(array[i]);
    }
  }
}

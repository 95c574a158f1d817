package hushrise.core.speech;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Decibels;
import hushrise.core.mix.Projects;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class SpeechFinderTest {

  private static final double FRAME_SECONDS = 0.032;

  /** Faint noise, loud where somebody speaks. */
  private static SampleSource sound(double seconds, double[]... spoken) {
    float[] samples = Projects.noise(1, (int) (seconds * RATE), 1e-4);
    for (double[] span : spoken) {
      float[] voice = Projects.noise(2, (int) ((span[1] - span[0]) * RATE), 0.2);
      System.arraycopy(voice, 0, samples, (int) (span[0] * RATE), voice.length);
    }
    return SampleSource.of(samples);
  }

  /** What a model says that hears coarsely: sure within the spans, unsure elsewhere. */
  private static float[] heard(double seconds, double[]... spans) {
    float[] probabilities = new float[(int) Math.ceil(seconds / FRAME_SECONDS)];
    for (int i = 0; i < probabilities.length; i++) {
      double at = (i + 0.5) * FRAME_SECONDS;
      for (double[] span : spans) {
        probabilities[i] = at >= span[0] && at < span[1] ? 0.9f : probabilities[i];
      }
    }
    return probabilities;
  }

  private static List<Span> find(SampleSource sound, float[] probabilities) {
    return SpeechFinder.find(sound, RATE, probabilities, FRAME_SECONDS);
  }

  @Test
  void endsAreMovedToWhereTheEnergyIs() {
    SampleSource sound = sound(6, new double[] {1.203, 3.517});
    List<Span> found = find(sound, heard(6, new double[] {1.12, 3.70}));
    assertThat(found).hasSize(1);
    assertThat(found.getFirst().startFrame() / (double) RATE).isCloseTo(1.203, within(0.015));
    assertThat(found.getFirst().endFrame() / (double) RATE).isCloseTo(3.517, within(0.015));
  }

  @Test
  void anEndThatTheModelHoldsTooLongIsFoundFurtherInside() {
    SampleSource sound = sound(6, new double[] {1, 3});
    List<Span> found = find(sound, heard(6, new double[] {1, 3.5}));
    assertThat(found.getFirst().endFrame() / (double) RATE).isCloseTo(3, within(0.015));
  }

  @Test
  void shortPausesAreFilledAndLongOnesKept() {
    double[][] spoken = {{1, 2}, {2.4, 3}, {3.7, 5}};
    List<Span> found = find(sound(6, spoken), heard(6, spoken));
    assertThat(found).hasSize(2);
    assertThat(found.getFirst().endFrame() / (double) RATE).isCloseTo(3, within(0.02));
  }

  @Test
  void aMomentIsNoSpeechAndDoesNotBridgeAPause() {
    double[][] spoken = {{1, 2}, {2.35, 2.42}};
    List<Span> found = find(sound(6, new double[] {1, 2}), heard(6, spoken));
    assertThat(found).hasSize(1);
    assertThat(found.getFirst().endFrame() / (double) RATE).isCloseTo(2, within(0.02));
    assertThat(find(sound(6), heard(6, new double[] {3, 3.07}))).isEmpty();
  }

  /** One sure sentence, and a second of something else that a model believes in so far. */
  private static List<Span> withDoubtful(float probability, double wordGain, double noise) {
    float[] samples = Projects.noise(1, 8 * RATE, noise);
    add(samples, 1, 3, 0.2);
    add(samples, 5, 6, 0.2 * wordGain);
    float[] heard = heard(8, new double[] {1, 3});
    Arrays.fill(heard, (int) (5 / FRAME_SECONDS) + 1, (int) (6 / FRAME_SECONDS), probability);
    return find(SampleSource.of(samples), heard);
  }

  private static void add(float[] samples, int fromSecond, int toSecond, double level) {
    float[] voice = Projects.noise(2, (toSecond - fromSecond) * RATE, level);
    for (int i = 0; i < voice.length; i++) {
      samples[fromSecond * RATE + i] += voice[i];
    }
  }

  @Test
  void aShoutThatTheModelIsNotSureOfIsSpeech() {
    List<Span> found = withDoubtful(0.42f, 1, 1e-4);
    assertThat(found).hasSize(2);
    assertThat(found.get(1).startFrame() / (double) RATE).isCloseTo(5, within(0.02));
    assertThat(found.get(1).endFrame() / (double) RATE).isCloseTo(6, within(0.02));
  }

  @Test
  void whatIsSoftOrUnlikelyOrLiesInNoiseIsNoSpeechWithoutTheModelBeingSure() {
    assertThat(withDoubtful(0.42f, 0.1, 1e-4)).as("20 dB softer than speech").hasSize(1);
    assertThat(withDoubtful(0.38f, 1, 1e-4)).as("less likely").hasSize(1);
    assertThat(withDoubtful(0.42f, 1, 0.02)).as("where it is never quiet").hasSize(1);
    assertThat(withDoubtful(0.52f, 1, 0.02)).as("there, when it is sure").hasSize(2);
  }

  @Test
  void theEndOfASentenceGoesOnAsLongAsItIsLoudAndPossible() {
    double[] sentence = {1, 3};
    float[] heard = heard(6, new double[] {1, 2.2});
    Arrays.fill(heard, (int) (2.2 / FRAME_SECONDS), (int) (3 / FRAME_SECONDS), 0.12f);
    double end = find(sound(6, sentence), heard).getFirst().endFrame() / (double) RATE;
    assertThat(end).isCloseTo(3, within(0.04));
  }

  /**
   * Forwards the only rise that lasts is the second's, backwards the first's: the ends would cross.
   */
  @Test
  void aWordThatSwellsAndOneThatDiesAwayMakeOnePassage() {
    float[] samples = Projects.noise(1, 4 * RATE, 1e-4);
    int ramp = RATE * 65 / 1000;
    int second = RATE + ramp + RATE * 30 / 1000;
    for (int i = 0; i < ramp; i++) {
      float gain = (float) Decibels.toFactor(10.0 * i / ramp);
      samples[RATE + i] *= gain;
      samples[second + ramp - 1 - i] *= gain;
    }
    List<Span> found = find(SampleSource.of(samples), heard(4, new double[] {1, 1.19}));
    assertThat(found).hasSize(1);
    assertThat(found.getFirst().startFrame()).isCloseTo(RATE, within((long) (0.04 * RATE)));
    assertThat(found.getFirst().lengthFrames() / (double) RATE).isBetween(0.15, 0.25);
  }

  @Test
  void whatIsNeverSureIsNoSpeech() {
    float[] unsure = new float[100];
    Arrays.fill(unsure, 0.49f);
    assertThat(find(sound(4), unsure)).isEmpty();
  }
}

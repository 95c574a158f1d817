package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.speech.SpeechFinder;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/**
 * Measures the finding of speech on sentences whose sounds have known times, clean and with music
 * under them, holds the figures to what they reach, and writes the table of docs/measuring.md to
 * {@code target/speech-report.md}.
 */
class SpeechReportTest extends MediaTestCase {

  private static final String[] VOICES = {"slt", "rms", "awb"};
  private static final Path RESOURCES = Path.of("src/test/resources/speech");
  private static final int STEP = RATE / 100;
  private static final double FILLED_SECONDS = 0.5;

  private static SileroModel model;

  @BeforeAll
  static void load() {
    model = new SileroModel();
  }

  /** A voice's sentences with pauses between them, and where the speech is. */
  @SuppressWarnings("ArrayRecordComponent") // handed on, never compared
  private record Scene(float[] samples, List<Span> speech) {}

  private Scene scene(String voice, long seed) throws IOException {
    Random random = new Random(seed);
    float[] samples = new float[60 * RATE];
    for (int i = 0; i < samples.length; i++) {
      samples[i] = (float) (1e-4 * random.nextGaussian());
    }
    List<Span> sounds = new ArrayList<>();
    int at = RATE;
    for (int number = 1; number <= 6; number++) {
      SampleSource sentence = open(RESOURCES.resolve(voice + "-" + number + ".flac"));
      int frames = (int) sentence.lengthFrames();
      float[] spoken = new float[frames];
      sentence.read(0, frames, spoken, new float[frames], 0);
      for (int i = 0; i < frames; i++) {
        samples[at + i] += spoken[i];
      }
      double from = 0;
      for (String line : Files.readAllLines(RESOURCES.resolve(voice + "-" + number + ".times"))) {
        String[] parts = line.split(" ", -1);
        double to = Double.parseDouble(parts[1]);
        if (!parts[0].equals("pau")) {
          sounds.add(new Span(at + Math.round(from * RATE), at + Math.round(to * RATE)));
        }
        from = to;
      }
      at += frames + (int) ((0.3 + 2.2 * random.nextDouble()) * RATE);
    }
    return new Scene(Arrays.copyOf(samples, at + RATE), filled(sounds));
  }

  private static List<Span> filled(List<Span> spans) {
    List<Span> result = new ArrayList<>();
    for (Span span : spans) {
      Span last = result.isEmpty() ? null : result.getLast();
      if (last != null && span.startFrame() - last.endFrame() < FILLED_SECONDS * RATE) {
        result.set(result.size() - 1, new Span(last.startFrame(), span.endFrame()));
      } else {
        result.add(span);
      }
    }
    return result;
  }

  /** A tune of plucked chords, bass and drums. */
  private static float[] tune(int frames) {
    float[] samples = new float[frames];
    Random random = new Random(8);
    int[] roots = {0, 5, 7, 3};
    int beat = (int) (RATE * 60 / 104.0);
    for (int n = 0; n * beat < frames; n++) {
      double root = 110 * Math.pow(2, roots[n / 4 % 4] / 12.0);
      for (int i = 0; i < beat && n * beat + i < frames; i++) {
        double t = i / (double) RATE;
        double x = 0.5 * Math.exp(-t * 3) * Math.sin(2 * Math.PI * root * t);
        for (double interval : new double[] {2, 2.5, 3}) {
          x += 0.18 * Math.exp(-t * 5) * Math.sin(2 * Math.PI * root * interval * t);
        }
        x += n % 2 == 1 ? 0.3 * Math.exp(-t * 45) * random.nextGaussian() : 0;
        samples[n * beat + i] = (float) (0.4 * x);
      }
    }
    return samples;
  }

  private static float[] mixed(Scene scene, double musicUnderDb) {
    if (Double.isInfinite(musicUnderDb)) {
      return scene.samples();
    }
    float[] tune = tune(scene.samples().length);
    double voice = 0;
    long count = 0;
    for (Span span : scene.speech()) {
      for (long i = span.startFrame(); i < span.endFrame(); i++) {
        voice += scene.samples()[(int) i] * (double) scene.samples()[(int) i];
        count++;
      }
    }
    double factor = Math.sqrt(voice / count) * Math.pow(10, -musicUnderDb / 20) / rms(tune);
    float[] mix = scene.samples().clone();
    for (int i = 0; i < mix.length; i++) {
      mix[i] += (float) (factor * tune[i]);
    }
    return mix;
  }

  private static List<Span> found(float[] samples) {
    SampleSource source = SampleSource.of(samples);
    return SpeechFinder.find(
        source, RATE, model.probabilities(source, RATE, Progress.NONE), model.frameSeconds());
  }

  private static boolean[] steps(List<Span> spans, int frames) {
    boolean[] steps = new boolean[frames / STEP];
    for (Span span : spans) {
      for (long s = span.startFrame() / STEP; s < span.endFrame() / STEP && s < steps.length; s++) {
        steps[(int) s] = true;
      }
    }
    return steps;
  }

  private static double f1(List<Span> truth, List<Span> found, int frames) {
    boolean[] wanted = steps(truth, frames);
    boolean[] got = steps(filled(found), frames);
    int both = 0;
    int sum = 0;
    for (int i = 0; i < wanted.length; i++) {
      both += wanted[i] && got[i] ? 1 : 0;
      sum += (wanted[i] ? 1 : 0) + (got[i] ? 1 : 0);
    }
    return 2.0 * both / sum;
  }

  @Test
  void speechIsFoundCleanAndOverMusic() throws IOException {
    double[] under = {Double.POSITIVE_INFINITY, 20, 10, 5};
    double[] reach = {0.97, 0.95, 0.93, 0.85};
    StringBuilder table =
        new StringBuilder(
            "| voice | clean | music 20 dB under | 10 dB | 5 dB | starts within 50 ms (clean) |\n|---|---|---|---|---|---|\n");
    int starts = 0;
    int near = 0;
    SoftAssertions softly = new SoftAssertions();
    for (int v = 0; v < VOICES.length; v++) {
      StringBuilder row = new StringBuilder("| flite " + VOICES[v] + " |");
      String within = "";
      for (int u = 0; u < under.length; u++) {
        double sum = 0;
        for (int seed = 0; seed < 3; seed++) {
          Scene scene = scene(VOICES[v], 10 * v + seed);
          float[] mix = mixed(scene, under[u]);
          List<Span> found = found(mix);
          sum += f1(scene.speech(), found, mix.length) / 3;
          if (u == 0) {
            for (Span passage : scene.speech()) {
              starts++;
              near +=
                  found.stream()
                          .anyMatch(
                              f -> Math.abs(f.startFrame() - passage.startFrame()) <= RATE / 20)
                      ? 1
                      : 0;
            }
            within = "%d of %d so far".formatted(near, starts);
          }
        }
        row.append(String.format(Locale.ROOT, " %.3f |", sum));
        softly
            .assertThat(sum)
            .as("%s with music %s dB under", VOICES[v], under[u])
            .isGreaterThanOrEqualTo(reach[u]);
      }
      table.append(row).append(' ').append(within).append(" |\n");
    }
    float[] tune = tune(120 * RATE);
    double falseSeconds = found(tune).stream().mapToLong(Span::lengthFrames).sum() / (double) RATE;
    table.append(
        String.format(
            Locale.ROOT, "%nMusic alone, 120 s: %.2f s taken for speech.%n", falseSeconds));
    Files.writeString(Path.of("target/speech-report.md"), table);
    softly.assertThat(falseSeconds).as("false speech").isLessThan(1.2);
    softly.assertThat(near / (double) starts).as("starts").isGreaterThanOrEqualTo(0.95);
    softly.assertAll();
  }

  @Test
  void oneLaneAndManyHearTheSame() throws IOException {
    Scene scene = scene("slt", 77);
    SampleSource source = SampleSource.of(scene.samples());
    float[] once = model.probabilities(source, RATE, Progress.NONE);
    float[] longer = Arrays.copyOf(scene.samples(), scene.samples().length * 6);
    float[] lanes = model.probabilities(SampleSource.of(longer), RATE, Progress.NONE);
    int apart = 0;
    for (int i = 0; i < once.length - 1; i++) {
      apart += (once[i] >= 0.5) == (lanes[i] >= 0.5) ? 0 : 1;
    }
    assertThat(apart).isLessThanOrEqualTo(once.length / 100);
  }

  @Test
  void aDamagedModelIsSaidSo() {
    assertThatThrownBy(() -> new SileroModel(new byte[1000], 1))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("damaged");
  }
}

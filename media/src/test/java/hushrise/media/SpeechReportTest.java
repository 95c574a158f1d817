package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

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
import java.util.function.IntFunction;
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
  private static final double[] UNDER = {Double.POSITIVE_INFINITY, 20, 10, 5};

  /** In how many orders the sentences are spoken: the table of the docs was made with 3. */
  private static final int ORDERS =
      Integer.parseInt(System.getenv().getOrDefault("HUSHRISE_ORDERS", "1"));

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

  /**
   * @param first the number of the first of six sentences: 1, or 7 for those held back
   */
  private Scene scene(String voice, int first, long seed) throws IOException {
    Random random = new Random(seed);
    float[] samples = new float[60 * RATE];
    for (int i = 0; i < samples.length; i++) {
      samples[i] = (float) (1e-4 * random.nextGaussian());
    }
    List<Span> sounds = new ArrayList<>();
    int at = RATE;
    for (int number = first; number < first + 6; number++) {
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

  /** Another kind of music, for what is held back: slow pads, broken chords and a shaker. */
  private static float[] waltz(int frames) {
    float[] samples = new float[frames];
    Random random = new Random(21);
    double[] steps = {0, 4, 7, 12, 7, 4};
    int[] roots = {0, 9, 2, 7};
    int beat = (int) (RATE * 60 / 132.0);
    for (int i = 0; i < frames; i++) {
      double t = i / (double) RATE;
      int bar = i / (3 * beat);
      double root = 130.8 * Math.pow(2, roots[bar % 4] / 12.0);
      double into = (i % (3 * beat)) / (3.0 * beat);
      double pad = Math.sin(Math.PI * into);
      double x = 0;
      for (double interval : new double[] {1, 1.2599, 1.4983, 2.006}) {
        x += 0.12 * pad * Math.sin(2 * Math.PI * root * interval * t + 0.3 * Math.sin(31 * t));
      }
      int half = i / (beat / 2);
      double since = (i % (beat / 2)) / (double) RATE;
      double pitch = 2 * root * Math.pow(2, steps[half % 6] / 12.0);
      x += 0.2 * Math.exp(-6 * since) * Math.asin(Math.sin(2 * Math.PI * pitch * t)) / 1.57;
      x += 0.06 * Math.exp(-30 * since) * random.nextGaussian();
      samples[i] = (float) (0.5 * x);
    }
    return samples;
  }

  /** A third kind, looked at last: a march of brass and rolling drums. */
  private static float[] march(int frames) {
    float[] samples = new float[frames];
    Random random = new Random(34);
    int[] tune = {0, 4, 7, 4, 5, 9, 7, 2, 4, 0};
    int beat = (int) (RATE * 60 / 116.0);
    for (int i = 0; i < frames; i++) {
      double t = i / (double) RATE;
      double since = (i % beat) / (double) RATE;
      double pitch = 233 * Math.pow(2, tune[i / beat % tune.length] / 12.0);
      double swell = Math.min(1, since / 0.04) * Math.exp(-1.5 * since);
      double x = 0;
      for (int k = 1; k <= 8; k++) {
        x += 0.2 / k * swell * Math.sin(2 * Math.PI * k * pitch * t);
        x += 0.1 / k * Math.sin(2 * Math.PI * k * 58.3 * (1 + i / (4 * beat) % 2 * 0.498) * t);
      }
      double roll = (i % (beat / 4)) / (double) RATE;
      x += 0.12 * Math.exp(-25 * roll) * random.nextGaussian();
      samples[i] = (float) (0.4 * x);
    }
    return samples;
  }

  private static float[] mixed(Scene scene, double musicUnderDb, IntFunction<float[]> music) {
    if (Double.isInfinite(musicUnderDb)) {
      return scene.samples();
    }
    float[] tune = music.apply(scene.samples().length);
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

  /** What a set of scenes gave. */
  @SuppressWarnings("ArrayRecordComponent") // handed on, never compared
  private record Report(String table, double[][] f1, double starts, double falseSeconds) {}

  private Report report(int firstSentence, long firstSeed, IntFunction<float[]> music)
      throws IOException {
    StringBuilder table =
        new StringBuilder(
            "| voice | clean | music 20 dB under | 10 dB | 5 dB |\n|---|---|---|---|---|\n");
    int starts = 0;
    int near = 0;
    double[][] f1 = new double[VOICES.length][UNDER.length];
    for (int v = 0; v < VOICES.length; v++) {
      StringBuilder row = new StringBuilder("| flite " + VOICES[v] + " |");
      for (int u = 0; u < UNDER.length; u++) {
        for (int n = 0; n < ORDERS; n++) {
          Scene scene = scene(VOICES[v], firstSentence, firstSeed + 10L * v + n);
          float[] mix = mixed(scene, UNDER[u], music);
          List<Span> found = found(mix);
          f1[v][u] += f1(scene.speech(), found, mix.length) / ORDERS;
          if (u == 0) {
            starts += scene.speech().size();
            near += near(scene.speech(), found);
          }
        }
        row.append(String.format(Locale.ROOT, " %.3f |", f1[v][u]));
      }
      table.append(row).append("\n");
    }
    float[] alone = music.apply(120 * RATE);
    double falseSeconds = found(alone).stream().mapToLong(Span::lengthFrames).sum() / (double) RATE;
    table.append(
        String.format(
            Locale.ROOT,
            "%nStarts of passages within 50 ms, clean: %d of %d. Music alone, 120 s: %.2f s taken for speech.%n",
            near,
            starts,
            falseSeconds));
    return new Report(table.toString(), f1, near / (double) starts, falseSeconds);
  }

  private static int near(List<Span> speech, List<Span> found) {
    int near = 0;
    for (Span passage : speech) {
      near +=
          found.stream().anyMatch(f -> Math.abs(f.startFrame() - passage.startFrame()) <= RATE / 20)
              ? 1
              : 0;
    }
    return near;
  }

  private static void requireReached(Report report, double[] reach, String what) {
    SoftAssertions softly = new SoftAssertions();
    for (int u = 0; u < UNDER.length; u++) {
      double sum = 0;
      for (int v = 0; v < VOICES.length; v++) {
        sum += report.f1()[v][u];
      }
      softly
          .assertThat(sum / VOICES.length)
          .as("%s: three voices with music %s dB under", what, UNDER[u])
          .isGreaterThanOrEqualTo(reach[u]);
    }
    softly.assertThat(report.falseSeconds()).as("false speech").isLessThan(1.2);
    softly.assertThat(report.starts()).as("starts").isGreaterThanOrEqualTo(0.95);
    softly.assertAll();
  }

  @Test
  void speechIsFoundCleanAndOverMusic() throws IOException {
    Report chosen = report(1, 0, SpeechReportTest::tune);
    Report last = report(7, 900, SpeechReportTest::march);
    Report heldBack = report(7, 500, SpeechReportTest::waltz);
    Files.writeString(
        Path.of("target/speech-report.md"),
        "Scenes that thresholds were chosen on:\n\n"
            + chosen.table()
            + "\nScenes held back, with other sentences and other music:\n\n"
            + heldBack.table()
            + "\nA third kind of music, looked at last:\n\n"
            + last.table());
    requireReached(chosen, new double[] {0.97, 0.95, 0.93, 0.85}, "chosen on");
    requireReached(heldBack, new double[] {0.97, 0.95, 0.93, 0.85}, "held back");
    requireReached(last, new double[] {0.97, 0.93, 0.92, 0.85}, "looked at last");
  }

  @Test
  void oneLaneAndManyHearTheSame() throws IOException {
    Scene scene = scene("slt", 1, 77);
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
}

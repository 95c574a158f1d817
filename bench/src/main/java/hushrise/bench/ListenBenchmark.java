package hushrise.bench;

import hushrise.core.fit.SongAnalysis;
import hushrise.core.fit.SongAnalyzer;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.util.Arrays;
import java.util.Random;

/** How long it takes to listen to a song of four minutes: beats, chroma, timbre. */
public final class ListenBenchmark {

  private static final int RATE = 48_000;
  private static final int SECONDS = 240;
  private static final int RUNS = 5;

  private ListenBenchmark() {}

  /** Prints the median of five runs, and that of the first, which starts cold. */
  public static void main(String[] args) {
    float[][] sound = new float[2][SECONDS * RATE];
    Random random = new Random(3);
    for (int i = 0; i < sound[0].length; i++) {
      double t = i / (double) RATE;
      double into = t % 0.5;
      double note = Math.sin(2 * Math.PI * 220 * Math.pow(2, (int) (t / 2) % 7 / 12.0) * t);
      double x =
          0.2 * note * Math.exp(-into * 4) + 0.1 * Math.exp(-into * 60) * random.nextGaussian();
      sound[0][i] = (float) x;
      sound[1][i] = (float) (0.9 * x);
    }
    SampleSource source = SampleSource.of(sound);
    double[] seconds = new double[RUNS];
    SongAnalysis analysis = null;
    for (int run = 0; run < RUNS; run++) {
      long begin = System.nanoTime();
      analysis = SongAnalyzer.analyze(source, RATE, "bench", Progress.NONE);
      seconds[run] = (System.nanoTime() - begin) / 1e9;
    }
    double first = seconds[0];
    Arrays.sort(seconds);
    System.out.printf(
        "first run %.2f s, median of %d: %.2f s (%.0f bpm, %d stretches)%n",
        first, RUNS, seconds[RUNS / 2], analysis.tempoBpm(), analysis.stretches());
  }
}

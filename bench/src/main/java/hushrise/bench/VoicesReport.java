package hushrise.bench;

import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.speech.SpeechFinder;
import hushrise.core.time.Span;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.SileroModel;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;

/**
 * How much of what real voices say is not found. Recordings that hold nothing but speech are put
 * one after another with pauses of 0.3 to 4 s; what is within 15 dB of their louder half was
 * spoken.
 */
public final class VoicesReport {

  private static final int RATE = Project.DEFAULT_SAMPLE_RATE;
  private static final int STEP = RATE / 100;
  private static final int AT_MOST = 160;
  private static final int IN_A_SCENE = 40;
  private static final double UNDER_LOUD_DB = 15;

  /** What is found at either end may miss so many steps: a consonant. */
  private static final int FORGIVEN_STEPS = 3;

  private static final double[] PAUSES = {0.3, 0.6, 1, 2, 4};

  /** A recording of which so many steps are missed has lost a word. */
  private static final int HURT_STEPS = 30;

  private int spoken;
  private int missed;
  private int hurt;
  private int lost;

  private VoicesReport() {}

  /**
   * Prints one line of a table: how many recordings, how long somebody speaks in them, how much of
   * that is not found, of how many recordings more than 0.3 s, and of how many nearly all.
   *
   * @param args a name, a folder to work in, and the recordings, of which 160 at most are taken
   */
  public static void main(String[] args) throws IOException {
    MediaStore media = new MediaStore(new CacheFolder(Path.of(args[1]), 1L << 32));
    List<float[]> voices = new ArrayList<>();
    int all = args.length - 2;
    int taken = Math.min(AT_MOST, all);
    for (int i = 0; i < taken; i++) {
      voices.add(read(media.open(Path.of(args[2 + i * all / taken]), RATE, Progress.NONE)));
    }
    double gateDb = loudDb(voices) - UNDER_LOUD_DB;
    SileroModel model = new SileroModel();
    Random random = new Random(1);
    VoicesReport report = new VoicesReport();
    for (int i = 0; i < taken; i += IN_A_SCENE) {
      report.hear(voices.subList(i, Math.min(taken, i + IN_A_SCENE)), gateDb, model, random);
    }
    System.out.printf(
        "| %s | %d | %.0f s | %.1f %% | %d | %d |%n",
        args[0],
        taken,
        report.spoken * (double) STEP / RATE,
        100.0 * report.missed / report.spoken,
        report.hurt,
        report.lost);
  }

  private static float[] read(SampleSource sound) {
    int frames = (int) sound.lengthFrames();
    float[] left = new float[frames];
    float[] right = new float[frames];
    sound.read(0, frames, left, right, 0);
    return left;
  }

  private static double db(float[] samples, int step) {
    double sum = 0;
    for (int i = step * STEP; i < (step + 1) * STEP; i++) {
      sum += samples[i] * (double) samples[i];
    }
    return 10 * Math.log10(sum / STEP + 1e-10);
  }

  /** Under which three quarters of all that is over -60 dB lie. */
  private static double loudDb(List<float[]> voices) {
    double[] levels =
        voices.stream()
            .flatMapToDouble(v -> IntStream.range(0, v.length / STEP).mapToDouble(i -> db(v, i)))
            .filter(level -> level > -60)
            .sorted()
            .toArray();
    return levels[levels.length * 3 / 4];
  }

  private void hear(List<float[]> voices, double gateDb, SileroModel model, Random random) {
    int[] starts = new int[voices.size()];
    int end = RATE;
    for (int i = 0; i < starts.length; i++) {
      starts[i] = end;
      end += voices.get(i).length + (int) (RATE * PAUSES[random.nextInt(PAUSES.length)]);
    }
    float[] scene = new float[end];
    for (int i = 0; i < starts.length; i++) {
      System.arraycopy(voices.get(i), 0, scene, starts[i], voices.get(i).length);
    }
    SampleSource source = SampleSource.of(scene);
    float[] heard = model.probabilities(source, RATE, Progress.NONE);
    BitSet found = new BitSet();
    for (Span span : SpeechFinder.find(source, RATE, heard, model.frameSeconds())) {
      int from = (int) span.startFrame() / STEP - FORGIVEN_STEPS;
      found.set(Math.max(0, from), (int) span.endFrame() / STEP + FORGIVEN_STEPS);
    }
    for (int i = 0; i < starts.length; i++) {
      int first = starts[i] / STEP;
      BitSet words = new BitSet();
      for (int k = 0; k < voices.get(i).length / STEP; k++) {
        words.set(first + k, db(voices.get(i), k) >= gateDb);
      }
      count(words, found);
    }
  }

  private void count(BitSet words, BitSet found) {
    int all = words.cardinality();
    words.andNot(found);
    int without = words.cardinality();
    spoken += all;
    missed += without;
    hurt += without > HURT_STEPS ? 1 : 0;
    lost += all > 0 && without > 0.8 * all ? 1 : 0;
  }
}

package hushrise.bench;

import hushrise.core.Problem;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.SongStore;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import org.jtransforms.fft.FloatFFT_1D;

/**
 * Fits songs to lengths and judges their seams by a measure of its own, which shares nothing with
 * the search: levels of 24 logarithmic bands every 100 ms, 1.5 s on both sides of both places. Of
 * each seam: which part of 500 random pairs of places is nearer, its distance against the nearest
 * place of the same lag, the step in level over 2 s, and how far the onsets of both sides are
 * apart.
 */
public final class JoinsReport {

  private static final int RATE = Project.DEFAULT_SAMPLE_RATE;
  private static final int PER_SECOND = 10;
  private static final int HALF = 15;
  private static final int BANDS = 24;
  private static final int WINDOW = 4096;
  private static final int PAIRS = 500;
  private static final double[] LENGTHS = {0.4, 0.6, 0.9, 1.3, 2, 3.5};

  /**
   * Under this distance nothing is heard to differ, so that ratios of such distances say nothing.
   */
  private static final double SAME_DB = 1;

  private static final float QUIETEST_DB = -30;

  private static final boolean VERBOSE = Boolean.getBoolean("hushrise.seams");

  private JoinsReport() {}

  private record AtSeam(
      double rank, double ratio, double stepDb, double phaseMs, double apartDb, Seam.Heard heard) {}

  /**
   * @param args songs
   */
  public static void main(String[] args) throws IOException {
    String kept = System.getProperty("hushrise.cache");
    Path folder = kept == null ? Scratch.folder() : Path.of(kept);
    CacheFolder cache = new CacheFolder(folder, 4L << 30);
    MediaStore store = new MediaStore(cache);
    SongStore songs = new SongStore(store, cache);
    System.out.println(
        "| song | listened s | mode | seams | rank %: median, worst | over 2 % | against the best: median, worst | level dB, worst | phase ms, worst |");
    System.out.println("|---|---|---|---|---|---|---|---|---|");
    List<AtSeam> all = new ArrayList<>();
    int allRefused = 0;
    int elsewhere = 0;
    for (String arg : args) {
      Media media = store.take(Path.of(arg), MediaKind.MUSIC, Progress.NONE);
      long start = System.nanoTime();
      songs.listen(media, Progress.NONE);
      double listened = (System.nanoTime() - start) / 1e9;
      Measure measure = new Measure(store.open(media.file(), RATE, Progress.NONE));
      for (FitMode mode : new FitMode[] {FitMode.TAILOR, FitMode.LOOP}) {
        List<AtSeam> seams = new ArrayList<>();
        int refused = 0;
        for (double length : LENGTHS) {
          try {
            long end = Math.round(length * media.lengthFrames());
            Clip clip = Clip.whole(media, 0).withFit(Optional.of(Fit.of(mode, 0)));
            long begun = System.nanoTime();
            Clip fitted = Fits.fitted(clip, media, songs, end, RATE);
            if (VERBOSE) {
              System.out.printf(
                  "  %s to %.1f: fitted in %d ms%n",
                  mode, length, (System.nanoTime() - begun) / 1_000_000);
            }
            if (mode == FitMode.TAILOR && fitted.endFrame() != end) {
              elsewhere++;
            }
            List<Seam> of = fitted.seams();
            (mode == FitMode.LOOP && !of.isEmpty() ? of.subList(0, 1) : of)
                .forEach(s -> seams.add(measure.at(s)));
          } catch (Problem e) {
            refused++;
            allRefused++;
            System.out.println(e.getMessage());
          }
        }
        all.addAll(seams);
        print(
            media.title(),
            listened,
            mode + (refused > 0 ? " (" + refused + " refused)" : ""),
            seams);
      }
    }
    print("all", 0, "", all);
    for (Seam.Heard heard : Seam.Heard.values()) {
      List<AtSeam> of = all.stream().filter(a -> a.heard == heard).toList();
      if (!of.isEmpty()) {
        print("said to be " + heard.name().toLowerCase(Locale.ROOT), 0, "", of);
      }
    }
    System.out.printf(
        Locale.ROOT,
        "%d seams: %d among the nearest 2 %%; phase over 10 ms: %d; over 1 dB: %d; over 1.6 times the best: %d; refused: %d; ends elsewhere: %d%n",
        all.size(),
        all.stream().filter(a -> a.rank <= 0.02).count(),
        all.stream().filter(a -> a.phaseMs > 10).count(),
        all.stream().filter(a -> a.stepDb > 1).count(),
        all.stream().filter(a -> a.ratio > 1.6).count(),
        allRefused,
        elsewhere);
  }

  private static void print(String name, double listened, String mode, List<AtSeam> seams) {
    double[] rank = seams.stream().mapToDouble(s -> 100 * s.rank).sorted().toArray();
    double[] ratio = seams.stream().mapToDouble(AtSeam::ratio).sorted().toArray();
    System.out.printf(
        Locale.ROOT,
        "| %s | %.1f | %s | %d | %.1f, %.1f | %d | %.2f, %.2f | %.1f | %.0f |%n",
        name,
        listened,
        mode,
        seams.size(),
        middle(rank),
        last(rank),
        Arrays.stream(rank).filter(r -> r > 2).count(),
        middle(ratio),
        last(ratio),
        seams.stream().mapToDouble(AtSeam::stepDb).max().orElse(0),
        seams.stream().mapToDouble(AtSeam::phaseMs).max().orElse(0));
  }

  private static double middle(double[] sorted) {
    return sorted.length == 0 ? 0 : sorted[sorted.length / 2];
  }

  private static double last(double[] sorted) {
    return sorted.length == 0 ? 0 : sorted[sorted.length - 1];
  }

  /** The measure of one song. */
  private static final class Measure {
    private final SampleSource sound;
    private final float[] mono;
    private final float[][] levels;

    /** Where silence begins that lasts to the file's end, in steps: no song is joined there. */
    private final int soundEnd;

    private final double[] pairs = new double[PAIRS];
    private final FloatFFT_1D fft = new FloatFFT_1D(WINDOW);
    private final float[] hann = new float[WINDOW];
    private final int[] bandOf = new int[WINDOW / 2];

    Measure(SampleSource sound) {
      this.sound = sound;
      for (int i = 0; i < WINDOW; i++) {
        hann[i] = (float) (0.5 - 0.5 * Math.cos(2 * Math.PI * i / WINDOW));
      }
      for (int bin = 1; bin < WINDOW / 2; bin++) {
        double hz = bin * (double) RATE / WINDOW;
        bandOf[bin] = (int) Math.floor(BANDS * Math.log(hz / 45) / Math.log(12_000 / 45.0));
      }
      int n = (int) sound.lengthFrames();
      mono = new float[n];
      float[] left = new float[RATE];
      float[] right = new float[RATE];
      for (int at = 0; at < n; at += RATE) {
        int count = Math.min(RATE, n - at);
        sound.read(at, count, left, right, 0);
        for (int i = 0; i < count; i++) {
          mono[at + i] = sound.channels() == 2 ? (left[i] + right[i]) / 2 : left[i];
        }
      }
      levels = new float[n / (RATE / PER_SECOND)][];
      for (int t = 0; t < levels.length; t++) {
        levels[t] = levels((long) t * RATE / PER_SECOND);
      }
      int silent = 0;
      while (isSilent(levels.length - 1 - silent)) {
        silent++;
      }
      soundEnd = levels.length - silent;
      Random random = new Random(11);
      int sounding = soundEnd - 2 * HALF;
      for (int p = 0; p < PAIRS; p++) {
        int a = HALF + random.nextInt(sounding);
        int b = HALF + random.nextInt(sounding);
        if (Math.abs(a - b) < 20) {
          p--;
          continue;
        }
        pairs[p] = distance(a, b);
      }
      Arrays.sort(pairs);
    }

    private boolean isSilent(int step) {
      for (float db : levels[step]) {
        if (db > QUIETEST_DB) {
          return false;
        }
      }
      return true;
    }

    private float[] levels(long centre) {
      float[] spectrum = new float[WINDOW];
      for (int i = 0; i < WINDOW; i++) {
        int at = (int) centre - WINDOW / 2 + i;
        spectrum[i] = at >= 0 && at < mono.length ? hann[i] * mono[at] : 0;
      }
      fft.realForward(spectrum);
      double[] energy = new double[BANDS];
      for (int bin = 4; bin < WINDOW / 2; bin++) {
        int band = bandOf[bin];
        if (band >= 0 && band < BANDS) {
          energy[band] +=
              spectrum[2 * bin] * spectrum[2 * bin] + spectrum[2 * bin + 1] * spectrum[2 * bin + 1];
        }
      }
      float[] db = new float[BANDS];
      for (int b = 0; b < BANDS; b++) {
        db[b] = (float) Math.max(QUIETEST_DB, 10 * Math.log10(energy[b] + 1e-9));
      }
      return db;
    }

    private double distance(int a, int b) {
      double sum = 0;
      int count = 0;
      for (int k = -HALF; k < HALF; k++) {
        if (a + k >= 0 && b + k >= 0 && a + k < levels.length && b + k < levels.length) {
          for (int i = 0; i < BANDS; i++) {
            sum += Math.abs(levels[a + k][i] - levels[b + k][i]);
          }
          count += BANDS;
        }
      }
      return sum / Math.max(1, count);
    }

    /** As {@link #distance}, of places between the steps. */
    private double distanceAt(long from, long to) {
      double sum = 0;
      for (int k = -HALF; k < HALF; k++) {
        long by = (long) k * RATE / PER_SECOND;
        float[] a = levels(from + by);
        float[] b = levels(to + by);
        for (int i = 0; i < BANDS; i++) {
          sum += Math.abs(a[i] - b[i]);
        }
      }
      return sum / (2 * HALF * BANDS);
    }

    AtSeam at(Seam seam) {
      AtSeam at = judged(seam);
      if (VERBOSE) {
        System.out.printf(
            Locale.ROOT,
            "    %6.1f s to %6.1f s of %.1f, likeness %.3f, wave %.2f: rank %.1f %%, ratio %.2f, apart %.2f dB, step %.1f dB, phase %.0f ms%n",
            seam.fromFrame() / (double) RATE,
            seam.toFrame() / (double) RATE,
            mono.length / (double) RATE,
            seam.score(),
            seam.correlation(),
            100 * at.rank,
            at.ratio,
            at.apartDb,
            at.stepDb,
            at.phaseMs);
      }
      return at;
    }

    private AtSeam judged(Seam seam) {
      double d = distanceAt(seam.fromFrame(), seam.toFrame());
      int nearer = 0;
      while (nearer < PAIRS && pairs[nearer] < d) {
        nearer++;
      }
      long lag = Math.abs(seam.fromFrame() - seam.toFrame());
      double best = nearestAt(lag);
      double step =
          Math.abs(
              level(seam.fromFrame(), 2 * RATE)
                  - level(seam.toFrame(), 2 * RATE)
                  - meanGain(seam, 2 * RATE));
      return new AtSeam(
          nearer / (double) PAIRS,
          Math.max(d, SAME_DB) / Math.max(best, SAME_DB),
          step,
          phase(seam.fromFrame(), seam.toFrame()),
          d,
          seam.heard());
    }

    /** The nearest that any place is to what comes a lag later. */
    private double nearestAt(long lag) {
      float[][] later = new float[(int) (soundEnd - lag * PER_SECOND / RATE)][];
      for (int t = 0; t < later.length; t++) {
        later[t] = levels((long) t * RATE / PER_SECOND + lag);
      }
      double best = Double.MAX_VALUE;
      for (int at = HALF; at + HALF < later.length; at++) {
        double sum = 0;
        for (int k = at - HALF; k < at + HALF; k++) {
          for (int i = 0; i < BANDS; i++) {
            sum += Math.abs(levels[k][i] - later[k][i]);
          }
        }
        best = Math.min(best, sum / (2 * HALF * BANDS));
      }
      return best;
    }

    private static double meanGain(Seam seam, int frames) {
      double sum = 0;
      for (int i = 0; i < frames; i += 100) {
        sum += seam.evenedDbAt(seam.atFrame() + i);
      }
      return sum / (frames / 100.0);
    }

    private double level(long from, int frames) {
      double sum = 1e-9;
      for (long i = from; i < Math.min(from + frames, mono.length); i++) {
        sum += mono[(int) i] * mono[(int) i];
      }
      return 10 * Math.log10(sum / frames);
    }

    /** By how much the onsets around both places are shifted, within 120 ms; 0 without a beat. */
    private double phase(long from, long to) {
      int hop = RATE / 500;
      int half = 900;
      int slack = 60;
      double[] a = onsets(from, half, hop);
      double[] b = onsets(to, half + slack, hop);
      double[] scores = new double[2 * slack + 1];
      int best = slack;
      for (int s = 0; s < scores.length; s++) {
        for (int i = 0; i < a.length; i++) {
          scores[s] += a[i] * b[i + s];
        }
        best = scores[s] > scores[best] ? s : best;
      }
      double mean = Arrays.stream(scores).average().orElse(0);
      return scores[best] < 1.8 * mean ? 0 : Math.abs(best - slack) * 2.0;
    }

    private double[] onsets(long centre, int half, int hop) {
      double[] energy = new double[2 * half];
      for (int i = 0; i < energy.length; i++) {
        long from = centre + (long) (i - half) * hop;
        double sum = 1e-6;
        for (long k = Math.max(1, from); k < Math.min(from + 2L * hop, mono.length); k++) {
          double rise = mono[(int) k] - mono[(int) k - 1];
          sum += rise * rise;
        }
        energy[i] = Math.log(sum);
      }
      double[] onset = new double[energy.length];
      for (int i = 3; i < onset.length; i++) {
        onset[i] = Math.max(0, energy[i] - energy[i - 3]);
      }
      return onset;
    }
  }
}

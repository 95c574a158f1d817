package hushrise.core.record;

import hushrise.core.Decibels;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.loudness.KWeighting;
import java.util.Arrays;

/**
 * Hears a few seconds of somebody speaking and says whether the input is set well: how high it
 * peaks, how loud the speech is, and how far it stands above what is heard between the words.
 *
 * <p>Speech is the louder half of the moments of 20 ms, noise the quietest of forty: somebody who
 * speaks without a pause leaves hardly more than that between the words.
 */
public final class InputCheck {

  /** How long it listens. */
  public static final double SECONDS = 3;

  private static final double HOT_DBFS = -3;
  private static final double QUIET_LUFS = -40;
  private static final double SILENT_LUFS = -65;
  private static final double NOISY_LU = 25;
  private static final int NOISE_OF = 40;
  private static final int PER_SECOND = 50;

  /** What was found. */
  public enum Verdict {
    GOOD,
    TOO_HOT,
    TOO_QUIET,
    TOO_NOISY,
    /** Nothing but silence came. */
    SILENT
  }

  /**
   * What was measured.
   *
   * @param peakDb the highest sample, in dBFS
   * @param speechLufs how loud the speech is
   * @param noiseLufs how loud what lies between the words is
   */
  public record Result(Verdict verdict, double peakDb, double speechLufs, double noiseLufs) {}

  private final int sampleRate;
  private final KWeighting filter;
  private final double[] moments = new double[(int) (SECONDS * PER_SECOND)];
  private int count;
  private double squares;
  private int frames;
  private float peak;

  public InputCheck(int sampleRate) {
    this.sampleRate = sampleRate;
    filter = new KWeighting(sampleRate);
  }

  /** Takes samples; those after the last second are let go. */
  public synchronized void add(float[] samples, int n) {
    int length = sampleRate / PER_SECOND;
    for (int done = 0; done < n && !isDone(); ) {
      int take = Math.min(n - done, length - frames);
      for (int i = done; i < done + take; i++) {
        peak = Math.max(peak, Math.abs(samples[i]));
      }
      squares += filter.squares(samples, done, take);
      frames += take;
      done += take;
      if (frames == length) {
        moments[count++] = squares / length;
        squares = 0;
        frames = 0;
      }
    }
  }

  public synchronized boolean isDone() {
    return count == moments.length;
  }

  /** What was found so far. */
  public synchronized Result result() {
    double[] sorted = Arrays.copyOf(moments, count);
    Arrays.sort(sorted);
    double speech = GatedLoudness.lufs(mean(sorted, count / 2, count));
    double noise = GatedLoudness.lufs(mean(sorted, 0, Math.max(1, count / NOISE_OF)));
    double peakDb = Decibels.ofFactor(peak);
    Verdict verdict;
    if (!(speech > SILENT_LUFS)) {
      verdict = Verdict.SILENT;
    } else if (peakDb > HOT_DBFS) {
      verdict = Verdict.TOO_HOT;
    } else if (speech < QUIET_LUFS) {
      verdict = Verdict.TOO_QUIET;
    } else if (speech - noise < NOISY_LU) {
      verdict = Verdict.TOO_NOISY;
    } else {
      verdict = Verdict.GOOD;
    }
    return new Result(verdict, peakDb, speech, noise);
  }

  private static double mean(double[] values, int from, int to) {
    double sum = 0;
    for (int i = from; i < to; i++) {
      sum += values[i];
    }
    return to <= from ? 0 : sum / (to - from);
  }
}

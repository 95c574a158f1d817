package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.mix.Mixer;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.Arrays;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;

/**
 * What was measured of a programme. Levels of silence are minus infinity.
 *
 * @param durationSeconds its length
 * @param integratedLufs gated loudness
 * @param loudnessRangeLu loudness range
 * @param maxMomentaryLufs the loudest 400 ms
 * @param maxShortTermLufs the loudest 3 s
 * @param truePeakDbtp the largest value between samples, in dB relative to full scale
 * @param samplePeakDbfs the largest sample, in dB relative to full scale
 */
public record Measurement(
    double durationSeconds,
    double integratedLufs,
    double loudnessRangeLu,
    double maxMomentaryLufs,
    double maxShortTermLufs,
    double truePeakDbtp,
    double samplePeakDbfs) {

  private static final int BLOCK = 1 << 14;

  /** Measures a whole source: its loudness here, its peaks on another thread meanwhile. */
  public static Measurement of(SampleSource source, int sampleRate, Progress progress) {
    CompletableFuture<TruePeakMeter[]> peaks = CompletableFuture.supplyAsync(() -> peaksOf(source));
    LoudnessMeter loudness = LoudnessMeter.forChannels(sampleRate, source.channels());
    try {
      stream(
          source,
          (planar, n, fraction) -> {
            loudness.add(planar, 0, n);
            progress.at(fraction);
          });
      return of(source.lengthFrames() / (double) sampleRate, loudness, peaks.join());
    } catch (CancellationException e) {
      peaks.cancel(true);
      throw e;
    }
  }

  private static TruePeakMeter[] peaksOf(SampleSource source) {
    TruePeakMeter[] peaks = new TruePeakMeter[source.channels()];
    Arrays.setAll(peaks, c -> new TruePeakMeter());
    stream(
        source,
        (planar, n, fraction) -> {
          for (int c = 0; c < peaks.length; c++) {
            peaks[c].add(planar[c], 0, n);
          }
        });
    return peaks;
  }

  private interface Blocks {
    void take(float[][] planar, int frames, double fraction);
  }

  private static void stream(SampleSource source, Blocks blocks) {
    float[][] planar = new float[2][BLOCK];
    long length = source.lengthFrames();
    for (long at = 0; at < length; at += BLOCK) {
      int n = (int) Math.min(BLOCK, length - at);
      source.read(at, n, planar[0], planar[1], 0);
      blocks.take(planar, n, (at + n) / (double) length);
    }
  }

  private static Measurement of(double seconds, LoudnessMeter loudness, TruePeakMeter[] peaks) {
    double truePeak = 0;
    double samplePeak = 0;
    for (TruePeakMeter peak : peaks) {
      truePeak = Math.max(truePeak, peak.truePeak());
      samplePeak = Math.max(samplePeak, peak.samplePeak());
    }
    return new Measurement(
        seconds,
        loudness.integratedLufs(),
        loudness.loudnessRangeLu(),
        loudness.maxMomentaryLufs(),
        loudness.maxShortTermLufs(),
        Decibels.ofFactor(truePeak),
        Decibels.ofFactor(samplePeak));
  }

  /** The gated loudness of what a mixer renders over a span, in LUFS. */
  public static double integratedLufs(Mixer mixer, Span span, int sampleRate) {
    LoudnessMeter meter = LoudnessMeter.forChannels(sampleRate, 2);
    float[][] planar = new float[2][BLOCK];
    for (long at = span.startFrame(); at < span.endFrame(); at += BLOCK) {
      int n = (int) Math.min(BLOCK, span.endFrame() - at);
      mixer.render(at, n, planar[0], planar[1]);
      meter.add(planar, 0, n);
    }
    return meter.integratedLufs();
  }

  /** A measurement in the making, for a programme that streams by. */
  public static final class Running {

    private final int sampleRate;
    private final LoudnessMeter loudness;
    private final TruePeakMeter[] peaks;
    private long frames;

    /**
     * @param channels 1 or 2
     */
    public Running(int sampleRate, int channels) {
      this.sampleRate = sampleRate;
      loudness = LoudnessMeter.forChannels(sampleRate, channels);
      peaks = new TruePeakMeter[channels];
      for (int c = 0; c < channels; c++) {
        peaks[c] = new TruePeakMeter();
      }
    }

    /** Takes the first {@code n} frames of planar samples. */
    public void add(float[][] planar, int n) {
      loudness.add(planar, 0, n);
      for (int c = 0; c < peaks.length; c++) {
        peaks[c].add(planar[c], 0, n);
      }
      frames += n;
    }

    /** What has been measured so far. */
    public Measurement result() {
      return of(frames / (double) sampleRate, loudness, peaks);
    }
  }
}

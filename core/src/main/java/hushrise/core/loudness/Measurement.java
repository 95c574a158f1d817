package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.mix.Mixer;
import hushrise.core.sound.Blocks;
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

  /** Measures a whole source: its loudness here, its peaks on another thread meanwhile. */
  public static Measurement of(SampleSource source, int sampleRate, Progress progress) {
    CompletableFuture<TruePeakMeter[]> peaks = CompletableFuture.supplyAsync(() -> peaksOf(source));
    LoudnessMeter loudness = LoudnessMeter.forChannels(sampleRate, source.channels());
    try {
      Blocks.each(
          new Span(0, source.lengthFrames()),
          source,
          (planar, n, at) -> {
            loudness.add(planar, 0, n);
            progress.at((at + n) / (double) source.lengthFrames());
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
    Blocks.each(
        new Span(0, source.lengthFrames()),
        source,
        (planar, n, at) -> {
          for (int c = 0; c < peaks.length; c++) {
            peaks[c].add(planar[c], 0, n);
          }
        });
    return peaks;
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
    Blocks.each(span, mixer::render, (planar, n, at) -> meter.add(planar, 0, n));
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
      this(sampleRate, LoudnessMeter.evenWeights(channels));
    }

    /**
     * @param channelWeights what each channel counts, as {@link LoudnessMeter} takes them
     */
    public Running(int sampleRate, double... channelWeights) {
      this.sampleRate = sampleRate;
      loudness = new LoudnessMeter(sampleRate, channelWeights);
      peaks = new TruePeakMeter[channelWeights.length];
      Arrays.setAll(peaks, c -> new TruePeakMeter());
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

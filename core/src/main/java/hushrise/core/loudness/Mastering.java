package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.sound.Blocks;
import java.util.Arrays;
import java.util.Optional;

/**
 * What is done to a mix on its way into a file.
 *
 * @param gainDb by how much it is turned up
 * @param ceilingDbtp under which its peaks are held; empty: they are let through
 */
public record Mastering(double gainDb, Optional<Double> ceilingDbtp) {

  /** Nothing. */
  public static final Mastering NONE = new Mastering(0, Optional.empty());

  /** This with other numbers. */
  public Mastering moved(double byGainDb, double byCeilingDb) {
    return new Mastering(gainDb + byGainDb, ceilingDbtp.map(c -> c + byCeilingDb));
  }

  /** A mix that is read in order, mastered. */
  public static final class Stream {

    private final Blocks.Reader mix;
    private final long endFrame;
    private final float gain;
    private final Optional<Limiter> limiter;
    private long next;

    /**
     * @param mix read from the first frame on, in order
     * @param endFrame after which there is silence
     */
    public Stream(
        Mastering mastering, Blocks.Reader mix, long startFrame, long endFrame, int sampleRate) {
      this.mix = mix;
      this.endFrame = endFrame;
      this.gain = (float) Decibels.toFactor(mastering.gainDb());
      this.limiter = mastering.ceilingDbtp().map(c -> new Limiter(sampleRate, c));
      next = startFrame;
      int delay = limiter.map(Limiter::delayFrames).orElse(0);
      fill(delay, new float[delay], new float[delay]);
    }

    /** Reads the next frames; at most {@link Blocks#FRAMES}. */
    public void read(int frames, float[] left, float[] right) {
      fill(frames, left, right);
    }

    private void fill(int frames, float[] left, float[] right) {
      int n = (int) Math.clamp(endFrame - next, 0, (long) frames);
      if (n > 0) {
        mix.read(next, n, left, right);
      }
      next += frames;
      Arrays.fill(left, n, frames, 0);
      Arrays.fill(right, n, frames, 0);
      if (gain != 1) {
        for (int i = 0; i < n; i++) {
          left[i] *= gain;
        }
        for (int i = 0; i < n; i++) {
          right[i] *= gain;
        }
      }
      limiter.ifPresent(l -> l.process(left, right, frames));
    }

    /** How far the limiter has turned down at most, in dB; 0 without one. */
    public double limiterMostDb() {
      return limiter.map(Limiter::mostDb).orElse(0.0);
    }

    /** For how many frames the limiter has turned anything down. */
    public long limitedFrames() {
      return limiter.map(Limiter::activeFrames).orElse(0L);
    }
  }
}

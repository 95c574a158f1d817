package hushrise.core.export;

import hushrise.core.Decibels;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.MixWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/**
 * Writes what each kind of track gives to a mix while that is rendered. Their levels are those of
 * the mix before the limiter. Each stem's rounding to 24 bits is made good by the next one that
 * sounds, so that all of them add up to the mix within one step.
 */
public final class Stems implements AutoCloseable {

  /** No stems. */
  public static final Stems NONE = new Stems(Project.empty(""), Map.of(), 0, false);

  private static final int BLOCK = 4096;
  private static final double STEPS = 1 << 23;

  private final TrackKind[] kindOfBus;
  private final double factor;
  private final boolean clips;
  private final List<Stem> stems = new ArrayList<>();
  private final Map<TrackKind, Stem> byKind = new EnumMap<>(TrackKind.class);
  private final float[][] block = new float[2][BLOCK];

  private static final class Stem {
    private final TrackKind kind;
    private final MixWriter writer;
    private final float[][] sum = new float[2][BLOCK];
    private boolean sounds;
    private float peak;

    Stem(TrackKind kind, MixWriter writer) {
      this.kind = kind;
      this.writer = writer;
    }
  }

  /**
   * @param writers where each kind of track goes; finished by {@link #finish}, closed by {@link
   *     #close}
   * @param gainDb of the mix, after the project's own level
   * @param clips whether the writers take nothing over full scale
   */
  public Stems(
      Project project, Map<TrackKind, ? extends MixWriter> writers, double gainDb, boolean clips) {
    this.clips = clips;
    kindOfBus = project.tracks().stream().map(t -> t.kind()).toArray(TrackKind[]::new);
    factor = Decibels.toFactor(project.masterDb() + gainDb);
    writers.forEach(
        (kind, writer) -> {
          Stem stem = new Stem(kind, writer);
          stems.add(stem);
          byKind.put(kind, stem);
        });
  }

  /** Renders a stretch of the mix, and writes what each kind gives to it. */
  void render(Mixer mixer, long startFrame, int frames, float[] left, float[] right) {
    if (stems.isEmpty()) {
      mixer.render(startFrame, frames, left, right);
      return;
    }
    for (int done = 0; done < frames; done += BLOCK) {
      int n = Math.min(BLOCK, frames - done);
      mixer.render(startFrame + done, n, block[0], block[1], this::add);
      System.arraycopy(block[0], 0, left, done, n);
      System.arraycopy(block[1], 0, right, done, n);
      write(n);
    }
  }

  private void add(int bus, float[] left, float[] right, int frames) {
    Stem stem = byKind.get(kindOfBus[bus]);
    if (stem != null) {
      stem.sounds = true;
      for (int i = 0; i < frames; i++) {
        stem.sum[0][i] += left[i];
        stem.sum[1][i] += right[i];
      }
    }
  }

  private void write(int frames) {
    for (int channel = 0; channel < 2; channel++) {
      for (int i = 0; i < frames; i++) {
        double carried = 0;
        for (int s = 0; s < stems.size(); s++) {
          Stem stem = stems.get(s);
          if (stem.sounds) {
            double wanted = stem.sum[channel][i] * factor * STEPS + carried;
            double step = Math.rint(wanted);
            carried = wanted - step;
            float sample = (float) (step / STEPS);
            stem.sum[channel][i] = sample;
            stem.peak = Math.max(stem.peak, Math.abs(sample));
          }
        }
      }
    }
    for (Stem stem : stems) {
      stem.writer.write(stem.sum[0], stem.sum[1], frames);
      Arrays.fill(stem.sum[0], 0);
      Arrays.fill(stem.sum[1], 0);
      stem.sounds = false;
    }
  }

  /** What has to be said of them, in sentences. */
  public List<String> notes() {
    List<String> notes = new ArrayList<>();
    for (Stem stem : stems) {
      if (clips && stem.peak > 1) {
        notes.add(
            "The stem of %s passes full scale by %.1f dB and is clipped there: lower the mix."
                .formatted(nameOf(stem.kind), Decibels.ofFactor(stem.peak)));
      }
    }
    return notes;
  }

  /** What a stem is called. */
  public static String nameOf(TrackKind kind) {
    return kind.name().toLowerCase(java.util.Locale.ROOT);
  }

  /** Completes all files. */
  public void finish() {
    stems.forEach(s -> s.writer.finish());
  }

  @Override
  public void close() {
    stems.forEach(s -> s.writer.close());
  }
}

package hushrise.core.speech;

import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/**
 * Turns a model's probabilities into stretches of speech.
 *
 * <p>With hysteresis: speech begins where the probability rises over {@link #ENTER} and ends where
 * it falls under {@link #LEAVE}. What lasts less than {@link #SHORTEST_SPEECH_SECONDS}, as a chord
 * may, is dropped before pauses under {@link #SHORTEST_PAUSE_SECONDS} are filled. A model's frame
 * is coarse, so each end is then moved to where the energy, in steps of 5 ms, first rises out of,
 * or last falls into, the quiet around it. Where the two would cross, the
 * coarse ends stay.
 */
public final class SpeechFinder {

  static final float ENTER = 0.5f;
  static final float LEAVE = 0.48f;
  static final double SHORTEST_PAUSE_SECONDS = 0.5;
  static final double SHORTEST_SPEECH_SECONDS = 0.15;

  /** Breaks under this lie within a word. */
  static final double BREAK_SECONDS = 0.1;

  private static final double STEP_SECONDS = 0.005;

  /** Levels are taken of the difference to so much of the sample before: bass counts less. */
  private static final double EMPHASIS = 0.95;

  /** A rise has to last this many steps: a drum's stroke does not. */
  private static final int HELD_STEPS = 10;

  /** How far outside and inside of a coarse end the exact one is looked for. */
  private static final double LOOK_OUT_SECONDS = 0.22;

  private static final double LOOK_IN_SECONDS = 0.9;

  private final SampleSource source;
  private final int sampleRate;

  private SpeechFinder(SampleSource source, int sampleRate) {
    this.source = source;
    this.sampleRate = sampleRate;
  }

  /**
   * The stretches of speech, in frames of the source, in order.
   *
   * @param probabilities from a {@link SpeechModel}
   * @param frameSeconds what each stands for
   */
  public static List<Span> find(
      SampleSource source, int sampleRate, float[] probabilities, double frameSeconds) {
    return new SpeechFinder(source, sampleRate).find(probabilities, frameSeconds);
  }

  private List<Span> find(float[] probabilities, double frameSeconds) {
    List<Span> spans = new ArrayList<>();
    int from = -1;
    for (int i = 0; i <= probabilities.length; i++) {
      boolean speaks = i < probabilities.length && probabilities[i] >= (from < 0 ? ENTER : LEAVE);
      if (speaks && from < 0) {
        from = i;
      } else if (!speaks && from >= 0) {
        spans.add(
            new Span(
                Math.round(from * frameSeconds * sampleRate),
                Math.min(Math.round(i * frameSeconds * sampleRate), source.lengthFrames())));
        from = -1;
      }
    }
    List<Span> exact = new ArrayList<>();
    List<Span> lasting =
        joined(spans, BREAK_SECONDS).stream()
            .filter(s -> s.lengthFrames() >= SHORTEST_SPEECH_SECONDS * sampleRate)
            .toList();
    for (Span span : joined(lasting, SHORTEST_PAUSE_SECONDS)) {
      long start = start(span);
      long end = end(span);
      exact.add(start < end ? new Span(start, end) : span);
    }
    return joined(exact, SHORTEST_PAUSE_SECONDS);
  }

  /** Spans with a pause shorter than some time joined into one. */
  private List<Span> joined(List<Span> spans, double pauseSeconds) {
    return Span.joined(spans, frames(pauseSeconds) - 1);
  }

  /** Where speech that a coarse span holds begins. */
  private long start(Span span) {
    long from = Math.max(0, span.startFrame() - frames(LOOK_OUT_SECONDS));
    long to = Math.min(span.endFrame(), span.startFrame() + frames(LOOK_IN_SECONDS));
    double[] levels = levels(from, to);
    int at = firstRise(levels);
    return at < 0 ? span.startFrame() : from + at * step();
  }

  /** Where speech that a coarse span holds ends. */
  private long end(Span span) {
    long from = Math.max(span.startFrame(), span.endFrame() - frames(LOOK_IN_SECONDS));
    long to = Math.min(source.lengthFrames(), span.endFrame() + frames(LOOK_OUT_SECONDS));
    double[] levels = levels(from, to);
    double[] backwards = new double[levels.length];
    for (int i = 0; i < levels.length; i++) {
      backwards[i] = levels[levels.length - 1 - i];
    }
    int at = firstRise(backwards);
    return at < 0
        ? span.endFrame()
        : Math.min(source.lengthFrames(), from + (levels.length - at) * step());
  }

  private long step() {
    return frames(STEP_SECONDS);
  }

  private long frames(double seconds) {
    return Math.round(seconds * sampleRate);
  }

  /** RMS levels in dB, one for each step. */
  private double[] levels(long from, long to) {
    int step = (int) step();
    int count = (int) Math.max(0, (to - from) / step);
    float[] left = new float[count * step];
    float[] right = new float[count * step];
    source.read(from, count * step, left, right, 0);
    double[] levels = new double[count];
    for (int i = 0; i < count; i++) {
      double sum = 0;
      for (int k = i * step; k < (i + 1) * step; k++) {
        double bright = left[k] - EMPHASIS * (k > 0 ? left[k - 1] : 0);
        sum += bright * bright;
      }
      levels[i] = 10 * Math.log10(sum / step + 1e-10);
    }
    return levels;
  }

  /**
   * The first step that rises a third of the way from the quiet before it to the loudest after it,
   * and stays there for a while; -1 when nothing does.
   */
  private static int firstRise(double[] levels) {
    if (levels.length < 2 * HELD_STEPS) {
      return -1;
    }
    double[] sorted = levels.clone();
    java.util.Arrays.sort(sorted);
    double quiet = sorted[levels.length / 10];
    double loud = sorted[levels.length - 1 - levels.length / 10];
    if (loud - quiet < 6) {
      return -1;
    }
    double gate = quiet + Math.max(4, 0.3 * (loud - quiet));
    for (int i = 0; i + HELD_STEPS < levels.length; i++) {
      boolean held = levels[i] > gate;
      for (int k = 1; k <= HELD_STEPS && held; k++) {
        held = levels[i + k] > gate - 3;
      }
      if (held) {
        return i;
      }
    }
    return -1;
  }
}

package hushrise.core.speech;

import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * Turns a model's probabilities into stretches of speech.
 *
 * <p>Somebody speaks as long as the probability stays over {@link #LEAVE}, where it rises over
 * {@link #ENTER}. Of shouts, of voices in a large room and of the ends of sentences a model is less
 * sure: in a recording that is quiet between its words, what is nearly as loud as those that are
 * sure needs {@link #LOUD_LEAVE} and {@link #LOUD_ENTER} only. What lasts less than {@link
 * #SHORTEST_SPEECH_SECONDS}, as a chord may, is dropped before pauses under {@link
 * #SHORTEST_PAUSE_SECONDS} are filled. A model's frame is coarse, so each end is then moved to
 * where the energy, in steps of 5 ms, first rises out of, or last falls into, the quiet around it.
 * Where the two would cross, the coarse ends stay.
 */
public final class SpeechFinder {

  static final float ENTER = 0.5f;
  static final float LEAVE = 0.48f;
  static final float LOUD_ENTER = 0.4f;
  static final float LOUD_LEAVE = 0.1f;
  static final double SHORTEST_PAUSE_SECONDS = 0.5;
  static final double SHORTEST_SPEECH_SECONDS = 0.15;

  /** Breaks under this lie within a word. */
  static final double BREAK_SECONDS = 0.1;

  private static final double STEP_SECONDS = 0.005;

  /** A rise has to last this many steps: a drum's stroke does not. */
  private static final int HELD_STEPS = 10;

  /** How far outside and inside of a coarse end the exact one is looked for. */
  private static final double LOOK_OUT_SECONDS = 0.22;

  private static final double LOOK_IN_SECONDS = 0.9;

  private final SampleSource source;
  private final int sampleRate;
  private final float[] probabilities;
  private final double frameSeconds;
  private final BrightLevels levels;

  private SpeechFinder(
      SampleSource source, int sampleRate, float[] probabilities, double frameSeconds) {
    this.source = source;
    this.sampleRate = sampleRate;
    this.probabilities = probabilities;
    this.frameSeconds = frameSeconds;
    this.levels = new BrightLevels(source);
  }

  /**
   * The stretches of speech, in frames of the source, in order.
   *
   * @param probabilities from a {@link SpeechModel}
   * @param frameSeconds what each stands for
   */
  public static List<Span> find(
      SampleSource source, int sampleRate, float[] probabilities, double frameSeconds) {
    return new SpeechFinder(source, sampleRate, probabilities, frameSeconds).find();
  }

  private List<Span> find() {
    List<Span> sure = lasting(i -> false);
    List<Span> coarse = sure.isEmpty() ? sure : lasting(loud(sure));
    List<Span> exact = new ArrayList<>();
    for (Span span : joined(coarse.stream().map(this::inSource).toList())) {
      long start = start(span);
      long end = end(span);
      exact.add(start < end ? new Span(start, end) : span);
    }
    return joined(exact);
  }

  /** Which of the model's frames are nearly as loud as the speech that is sure. */
  private IntPredicate loud(List<Span> sure) {
    double[] db = levels.of(0, (int) frames(frameSeconds), probabilities.length);
    double gate = LoudWords.gateDb(db, sure);
    return i -> db[i] >= gate;
  }

  /** Speech that lasts, in frames of the model. */
  private List<Span> lasting(IntPredicate loud) {
    List<Span> runs = new ArrayList<>();
    int from = -1;
    for (int i = 0; i <= probabilities.length; i++) {
      boolean speaks =
          i < probabilities.length && probabilities[i] >= (loud.test(i) ? LOUD_LEAVE : LEAVE);
      if (speaks && from < 0) {
        from = i;
      } else if (!speaks && from >= 0) {
        runs.add(new Span(from, i));
        from = -1;
      }
    }
    return Span.joined(runs, (long) (BREAK_SECONDS / frameSeconds)).stream()
        .filter(run -> run.lengthFrames() * frameSeconds >= SHORTEST_SPEECH_SECONDS)
        .filter(run -> rises(run, loud))
        .toList();
  }

  private boolean rises(Span run, IntPredicate loud) {
    return IntStream.range((int) run.startFrame(), (int) run.endFrame())
        .anyMatch(i -> probabilities[i] >= (loud.test(i) ? LOUD_ENTER : ENTER));
  }

  /** A span in frames of the model as one in frames of the source. */
  private Span inSource(Span span) {
    return new Span(
        frames(span.startFrame() * frameSeconds),
        Math.min(frames(span.endFrame() * frameSeconds), source.lengthFrames()));
  }

  /** Spans with a short pause joined into one. */
  private List<Span> joined(List<Span> spans) {
    return Span.joined(spans, frames(SHORTEST_PAUSE_SECONDS) - 1);
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

  /** Levels of what lies between two places, from step to step. */
  private double[] levels(long from, long to) {
    return levels.of(from, (int) step(), (int) Math.max(0, (to - from) / step()));
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
